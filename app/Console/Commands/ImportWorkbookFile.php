<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Console\Concerns\NamesFile;
use App\Exchange\ImportWorkbook;
use App\Support\Formats;
use Illuminate\Console\Command;
use Kybernet\Core\Workbook\BadWorkbook;
use Symfony\Component\Console\Output\OutputInterface;

/** Exits 0, 1 when there is something already, 2 for a bad workbook; nothing is changed then. */
final class ImportWorkbookFile extends Command
{
    use NamesFile;

    private const BAD_WORKBOOK = 2;

    protected $signature = 'import {file : a workbook, JSON} {--replace : put it in the place of what is here already}';

    protected $description = 'Fill the database from a workbook file, all or nothing; accounts and passwords stay';

    public function handle(Formats $formats, ImportWorkbook $import): int
    {
        $errors = $this->output->getErrorStyle();
        try {
            $workbook = $formats->readWorkbook($this->file());
            if ($this->option('replace') !== true && $import->hasOrganisation()) {
                $errors->writeln('There is an organisation here already. Add --replace to put the workbook in its place: its definitions, figures and notes are then gone.');

                return self::FAILURE;
            }
            $import($workbook);
        } catch (BadWorkbook $bad) {
            foreach ($bad->problems as $problem) {
                $errors->writeln($problem->line(), OutputInterface::OUTPUT_RAW);
            }

            return self::BAD_WORKBOOK;
        }

        return self::SUCCESS;
    }
}
