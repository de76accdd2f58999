<?php

declare(strict_types=1);

namespace App\Tables;

use XMLReader;
use ZipArchive;

/**
 * The XML inside a spreadsheet, read forward only. Nothing outside the file is ever loaded. The part is unpacked to a
 * file first, as far as its bounds go, so that what it claims to be does not matter.
 */
final class XmlStream
{
    private const CHUNK = 1_048_576;

    private readonly XMLReader $xml;

    private readonly string $unpacked;

    public function __construct(string $archive, string $entry, private readonly Bounds $bounds)
    {
        $this->unpacked = (string) tempnam(sys_get_temp_dir(), 'kybernet-part');
        try {
            $this->unpack($archive, $entry);
        } catch (BadTable $bad) {
            unlink($this->unpacked);
            throw $bad;
        }
        $this->xml = new XMLReader;
        if (! @$this->xml->open($this->unpacked, null, LIBXML_NONET | LIBXML_NOWARNING | LIBXML_NOERROR)) {
            throw new BadTable('The file is damaged: a part of it is missing.');
        }
    }

    public function __destruct()
    {
        @unlink($this->unpacked);
    }

    /**
     * Goes to the next start of an element with one of the names.
     *
     * @return string|null its name without a prefix; null at the end
     */
    public function next(string ...$names): ?string
    {
        while ($this->read()) {
            if ($this->xml->nodeType === XMLReader::ELEMENT && in_array($this->xml->localName, $names, true)) {
                return $this->xml->localName;
            }
            if ($this->xml->nodeType === XMLReader::DOC_TYPE) {
                throw new BadTable('The file is damaged: it declares what no spreadsheet does.');
            }
        }

        return null;
    }

    /** An attribute of the element, whatever its prefix. */
    public function attribute(string $name): ?string
    {
        return $this->xml->getAttribute($name);
    }

    public function isEmpty(): bool
    {
        return $this->xml->isEmptyElement;
    }

    /** How deep the element lies. */
    public function depth(): int
    {
        return $this->xml->depth;
    }

    /** The text inside the element, its children's included; goes to the end of the element. */
    public function text(): string
    {
        $text = '';
        $depth = $this->xml->depth;
        while (! $this->xml->isEmptyElement && $this->read() && $this->xml->depth > $depth) {
            if (in_array($this->xml->nodeType, [XMLReader::TEXT, XMLReader::CDATA, XMLReader::SIGNIFICANT_WHITESPACE, XMLReader::WHITESPACE], true)) {
                $text .= $this->xml->value;
                Bounds::cell(strlen($text));
            }
        }

        return $text;
    }

    /** Goes one step further; false at the end. */
    public function read(): bool
    {
        $this->bounds->step();
        $previous = libxml_use_internal_errors(true);
        try {
            $went = $this->xml->read();
            foreach (libxml_get_errors() as $error) {
                if ($error->level === LIBXML_ERR_FATAL) {
                    throw new BadTable('The file is damaged: it breaks off or is not well formed.');
                }
            }

            return $went;
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($previous);
        }
    }

    public function isStart(): bool
    {
        return $this->xml->nodeType === XMLReader::ELEMENT;
    }

    public function name(): string
    {
        return $this->xml->localName;
    }

    private function unpack(string $path, string $entry): void
    {
        $archive = new ZipArchive;
        $from = $archive->open($path, ZipArchive::RDONLY) === true ? $archive->getStream($entry) : false;
        $to = fopen($this->unpacked, 'wb');
        if ($from === false || $to === false) {
            throw new BadTable('The file is damaged: a part of it is missing.');
        }
        $bytes = 0;
        while (! feof($from)) {
            $chunk = @fread($from, self::CHUNK);
            if ($chunk === false) {
                throw new BadTable('The file is damaged: it breaks off or is not well formed.');
            }
            $bytes += strlen($chunk);
            if ($bytes > Bounds::MOST_BYTES) {
                throw new BadTable('The file unpacks to more than can be read here. Split it and send the parts.');
            }
            fwrite($to, $chunk);
        }
        fclose($from);
        fclose($to);
        $archive->close();
    }
}
