<?php

declare(strict_types=1);

namespace App\Briefings;

use Illuminate\Contracts\Config\Repository;
use Symfony\Component\Process\Exception\ProcessTimedOutException;
use Symfony\Component\Process\Process;

/**
 * Prints pages as PDF with the server's own browser, where there is one.
 */
final readonly class Printer
{
    private const SECONDS = 60;

    /** For so long a browser's clock runs while nothing is on its way. */
    private const BUDGET = 12_000;

    /** How wide the page of each paper is between its margins, in CSS pixels. */
    private const WIDTHS = ['a4' => 1032, 'a3' => 1496];

    public function __construct(private Sheets $sheets, private Repository $config) {}

    public function isThere(): bool
    {
        return is_executable($this->config->string('kybernet.browser'));
    }

    /**
     * @param  array<string, mixed>  $sheets  what the reading page lays out
     * @param  'a4'|'a3'  $paper
     *
     * @throws PrinterFailed where the browser does not come to an end, or is not there
     */
    public function print(array $sheets, string $paper): string
    {
        if (! $this->isThere()) {
            throw new PrinterFailed('This server has no browser that could print. Your own can: choose Print, and save it as PDF.');
        }
        // One at a time on each server: a browser takes as much of it as a dozen people.
        $turn = $this->turn();
        $key = $this->sheets->lay(['paper' => $paper] + $sheets);
        $folder = sys_get_temp_dir().'/kybernet-print-'.bin2hex(random_bytes(8));
        try {
            mkdir($folder, 0700);
            $process = new Process([
                $this->config->string('kybernet.browser'), '--headless=new', '--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--no-first-run', '--disable-extensions', '--disable-background-networking', '--hide-scrollbars', '--force-prefers-reduced-motion',
                "--user-data-dir={$folder}/profile", '--window-size='.self::WIDTHS[$paper].',1400', '--virtual-time-budget='.self::BUDGET, '--run-all-compositor-stages-before-draw',
                '--no-pdf-header-footer', '--generate-pdf-document-outline', "--print-to-pdf={$folder}/page.pdf", rtrim($this->config->string('kybernet.inner_url'), '/').'/read#'.$key,
            ], $folder, ['HOME' => $folder, 'XDG_CONFIG_HOME' => $folder, 'XDG_CACHE_HOME' => $folder], null, self::SECONDS);
            $process->run();
            $pdf = is_file("{$folder}/page.pdf") ? file_get_contents("{$folder}/page.pdf") : false;
            if ($pdf === false || ! str_starts_with($pdf, '%PDF-')) {
                throw new PrinterFailed('The page could not be printed here. Your own browser can: choose Print, and save it as PDF.');
            }

            return $pdf;
        } catch (ProcessTimedOutException) {
            throw new PrinterFailed('Printing took too long. Your own browser can: choose Print, and save it as PDF.');
        } finally {
            $this->sheets->clear($key);
            fclose($turn);
            (new Process(['rm', '-rf', $folder]))->run();
        }
    }

    /** @return resource that holds the turn until it is closed, however this process ends */
    private function turn(): mixed
    {
        $file = fopen(sys_get_temp_dir().'/kybernet-printer-'.posix_geteuid().'.lock', 'c') ?: throw new PrinterFailed('The server has no room to print just now.');
        for ($tried = 0; $tried < self::SECONDS * 10; $tried++) {
            if (flock($file, LOCK_EX | LOCK_NB)) {
                return $file;
            }
            usleep(100_000);
        }
        throw new PrinterFailed('Others are printing just now. Try again in a minute.');
    }

    /** How many pages a PDF has: each of them says what it is. */
    public static function pages(string $pdf): int
    {
        return max(1, (int) preg_match_all('#/Type\s*/Page\b(?!s)#', $pdf));
    }
}
