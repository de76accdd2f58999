<?php

declare(strict_types=1);

namespace App\Sources;

use Illuminate\Contracts\Config\Repository;
use PDO;
use PDOException;

/**
 * Asks another PostgreSQL for records: in a session that can only read, within a time, row by row.
 */
final readonly class QueryFetcher
{
    private const CONNECT_SECONDS = 10;

    private const MOST_SECONDS = 600;

    private const ROWS = 5_000;

    public function __construct(private Repository $config) {}

    /**
     * @param  array{host: string, port: int, database: string, user: string, sql: string}  $query
     * @param  string  $path  where what comes is kept, as CSV
     * @return int how many rows came
     *
     * @throws NotAsked
     */
    public function fetch(array $query, #[\SensitiveParameter] ?string $secret, string $path): int
    {
        $asked = AskedAddress::of("http://{$query['host']}:{$query['port']}", $this->config);
        try {
            $pdo = new PDO(
                sprintf("pgsql:host=%s;hostaddr=%s;port=%d;dbname=%s;connect_timeout=%d;application_name=kybernet;options='-c default_transaction_read_only=on -c statement_timeout=%d -c lock_timeout=10000'", $query['host'], $asked->ip, $query['port'], str_replace(["'", '\\', ';'], '', $query['database']), self::CONNECT_SECONDS, self::MOST_SECONDS * 1000),
                $query['user'],
                $secret ?? '',
                [PDO::ATTR_ERRMODE => PDO::ERRMODE_EXCEPTION, PDO::ATTR_EMULATE_PREPARES => false, PDO::ATTR_STRINGIFY_FETCHES => true],
            );
            $this->refuseWriters($pdo);
            $pdo->exec('BEGIN TRANSACTION READ ONLY ISOLATION LEVEL REPEATABLE READ');
            // Prepared, it can be one query and nothing behind it.
            $pdo->prepare('DECLARE kybernet_records NO SCROLL CURSOR FOR '.rtrim(trim($query['sql']), ';'))->execute();
            $file = fopen($path, 'wb');
            if ($file === false) {
                throw new NotAsked('There is no place for what comes.');
            }
            $count = 0;
            do {
                $answer = $pdo->query('FETCH '.self::ROWS.' FROM kybernet_records');
                $rows = $answer === false ? [] : $answer->fetchAll(PDO::FETCH_ASSOC);
                foreach ($rows as $row) {
                    if ($count === 0) {
                        fputcsv($file, array_keys($row), ',', '"', '');
                    }
                    fputcsv($file, array_map(fn (mixed $value): string => is_bool($value) ? ($value ? 'true' : 'false') : (is_scalar($value) ? (string) $value : ''), $row), ',', '"', '');
                    $count++;
                }
            } while (count($rows) === self::ROWS);
            fclose($file);
            $pdo->exec('ROLLBACK');

            return $count;
        } catch (PDOException $broken) {
            throw new NotAsked(self::words($broken->getMessage()));
        }
    }

    /**
     * A role that may write there is not the one to be used here, whatever this session allows itself.
     *
     * @throws NotAsked
     */
    private function refuseWriters(PDO $pdo): void
    {
        $writes = $pdo->query("SELECT (SELECT rolsuper OR rolcreatedb OR rolcreaterole FROM pg_roles WHERE rolname = current_user) OR EXISTS (
            SELECT FROM information_schema.role_table_grants WHERE grantee IN (SELECT rolname FROM pg_roles WHERE pg_has_role(current_user, oid, 'USAGE'))
                AND privilege_type IN ('INSERT', 'UPDATE', 'DELETE', 'TRUNCATE') AND table_schema NOT IN ('pg_catalog', 'information_schema'))");
        if ($writes !== false && in_array($writes->fetchColumn(), [true, 't', '1', 1], true)) {
            throw new NotAsked('This account may write there. Use one that can only read.');
        }
    }

    /** What the other database says, without what is nobody's business. */
    private static function words(string $message): string
    {
        return match (true) {
            str_contains($message, 'statement timeout') => 'The query takes longer than ten minutes.',
            str_contains($message, 'password authentication') => 'It does not know this account or password.',
            str_contains($message, 'could not connect') || str_contains($message, 'Connection refused') || str_contains($message, 'timeout expired') || str_contains($message, 'could not translate') => 'It cannot be reached.',
            str_contains($message, 'server closed the connection') || str_contains($message, 'terminating connection') => 'It broke off in the middle.',
            default => mb_substr(trim(preg_replace(['/\ASQLSTATE\[\w+\]:?\s*(?:\[\d+\])?/', '/\s+/'], ['', ' '], $message) ?? $message), 0, 300),
        };
    }
}
