<?php

declare(strict_types=1);

namespace ZipStream;

use RuntimeException;
use ZipArchive;

/**
 * An archive that is put together in a temporary file and copied to the stream when it is finished.
 */
final class ZipStream
{
    private readonly ZipArchive $archive;

    private readonly string $path;

    /** @param  resource  $outputStream */
    public function __construct(
        private $outputStream,
        bool $enableZip64 = true,
        bool $sendHttpHeaders = true,
        bool $defaultEnableZeroHeader = true,
    ) {
        $path = tempnam(sys_get_temp_dir(), 'kybernet');
        $this->archive = new ZipArchive;
        if ($path === false || $this->archive->open($path, ZipArchive::OVERWRITE) !== true) {
            throw new RuntimeException('A temporary file for the archive could not be made.');
        }
        $this->path = $path;
    }

    public function addFile(string $fileName, string $data): void
    {
        $this->archive->addFromString($fileName, $data);
        // Written later the same content gives the same bytes.
        $this->archive->setMtimeName($fileName, 315532800);
        if ($fileName === 'mimetype') {
            $this->archive->setCompressionName($fileName, ZipArchive::CM_STORE);
        }
    }

    public function finish(): int
    {
        $this->archive->close();
        $file = fopen($this->path, 'rb');
        if ($file === false) {
            throw new RuntimeException('The archive could not be read back.');
        }
        $size = (int) stream_copy_to_stream($file, $this->outputStream);
        fclose($file);
        unlink($this->path);

        return $size;
    }
}
