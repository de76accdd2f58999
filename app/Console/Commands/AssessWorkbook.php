<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Console\Concerns\NamesFile;
use App\Support\Formats;
use Illuminate\Console\Command;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Workbook\AssessmentWriter;
use Kybernet\Core\Workbook\BadWorkbook;
use Symfony\Component\Console\Output\OutputInterface;

/**
 * Needs no database and no server. Exits 0, 1 when it was asked for something that there is not, 2 for a bad workbook.
 */
final class AssessWorkbook extends Command
{
    use NamesFile;

    private const BAD_WORKBOOK = 2;

    protected $signature = 'assess {file : a workbook, JSON}
        {--period= : the month to assess, 2026-08}
        {--span=month : month, quarter, yearToDate or rolling12: where exceptions are looked for, and what a table shows}
        {--splits : with the parts of each KPI that has some}
        {--format=json : json or csv}';

    protected $description = 'Assess a workbook file and print what every KPI was judged to be, and why';

    public function handle(Formats $formats): int
    {
        try {
            $period = Period::parse($this->text('period'));
        } catch (InvalidArgumentException $problem) {
            return $this->refuse('--period: '.($this->text('period') === '' ? 'the month to assess is missing, such as --period=2026-08.' : $problem->getMessage()));
        }
        $span = Span::tryFrom($this->text('span'));
        $format = $this->text('format');
        if ($span === null) {
            return $this->refuse("--span: '{$this->text('span')}' is none of ".implode(', ', array_column(Span::cases(), 'value')).'.');
        }
        if (! in_array($format, ['json', 'csv'], true)) {
            return $this->refuse("--format: '{$format}' is neither json nor csv.");
        }
        try {
            $writer = new AssessmentWriter($formats->readWorkbook($this->file()), $period, $span, $this->option('splits') === true);
        } catch (BadWorkbook $bad) {
            foreach ($bad->problems as $problem) {
                $this->complain($problem->line());
            }

            return self::BAD_WORKBOOK;
        }
        if ($format === 'json') {
            foreach ($writer->json() as $piece) {
                $this->output->write($piece, false, OutputInterface::OUTPUT_RAW);
            }
        } else {
            foreach ($writer->table() as $row) {
                $this->output->write(Formats::csv($row), false, OutputInterface::OUTPUT_RAW);
            }
        }

        return self::SUCCESS;
    }

    private function text(string $option): string
    {
        $value = $this->option($option);

        return is_string($value) ? $value : '';
    }

    private function refuse(string $message): int
    {
        $this->complain($message);

        return self::FAILURE;
    }

    private function complain(string $line): void
    {
        $this->output->getErrorStyle()->writeln(str_replace(["\r", "\n"], ' ', $line), OutputInterface::OUTPUT_RAW);
    }
}
