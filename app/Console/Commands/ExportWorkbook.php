<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Console\Concerns\NamesFile;
use App\Figures\DatabaseWorkbook;
use App\Support\Formats;
use Illuminate\Console\Command;
use Kybernet\Core\Workbook\WorkbookWriter;

final class ExportWorkbook extends Command
{
    use NamesFile;

    protected $signature = 'export {file : where the workbook is written, JSON}';

    protected $description = 'Write everything that is defined and every figure to a workbook file';

    public function handle(DatabaseWorkbook $database): int
    {
        $file = Formats::path($this->file());
        // A workbook that is half written never takes the place of a whole one.
        $draft = "{$file}.part";
        $handle = @fopen($draft, 'wb');
        if ($handle === false) {
            $this->output->getErrorStyle()->writeln("The file '{$this->file()}' cannot be written.");

            return self::FAILURE;
        }
        $isWhole = true;
        foreach (WorkbookWriter::json($database->read()) as $piece) {
            $isWhole = $isWhole && fwrite($handle, $piece) === strlen($piece);
        }
        if (! fclose($handle) || ! $isWhole || ! rename($draft, $file)) {
            @unlink($draft);
            $this->output->getErrorStyle()->writeln("The file '{$this->file()}' could not be written to its end.");

            return self::FAILURE;
        }

        return self::SUCCESS;
    }
}
