<?php

declare(strict_types=1);

namespace Tests;

use App\Models\Measurement;
use App\Models\User;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Foundation\Testing\DatabaseTransactions;
use Illuminate\Foundation\Testing\TestCase as BaseTestCase;

/**
 * A test against the real application and its real database, loaded with Ostermere Water; each leaves it as it was.
 */
abstract class TestCase extends BaseTestCase
{
    use DatabaseTransactions;

    protected function tearDown(): void
    {
        CarbonImmutable::setTestNow();
        parent::tearDown();
    }

    /** Signs in as one of the demonstration accounts. */
    public function as(string $account): static
    {
        // Another person has another session.
        $this->flushSession();

        return $this->actingAs(User::query()->where('email', "{$account}@ostermere.example")->firstOrFail());
    }

    /** Begins with the small world instead of the demonstration, on a day of its August. */
    public function world(): static
    {
        CarbonImmutable::setTestNow('2026-08-20 09:00');
        World::begin();

        return $this;
    }

    /** Signs in as somebody of the small world. */
    public function being(string $role): static
    {
        $this->flushSession();

        return $this->actingAs(World::person($role));
    }

    /** The identity of a KPI of Network, for tests that write it from a data set. */
    public function measuredId(string $kpi): int
    {
        return self::measured($kpi, 'NET')->id;
    }

    /** Passwords cost as good as nothing: tests that guess by the dozen are about the guessing. */
    protected function withQuickPasswords(string $right): void
    {
        $this->mock(Hasher::class)->allows('check')->andReturnUsing(fn (string $typed): bool => $typed === $right);
    }

    protected static function measured(string $kpi, string $unit): Measurement
    {
        return Measurement::query()
            ->whereRelation('kpi', 'code', $kpi)
            ->whereRelation('unit', 'code', $unit)
            ->firstOrFail();
    }
}
