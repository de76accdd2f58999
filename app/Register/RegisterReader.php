<?php

declare(strict_types=1);

namespace App\Register;

use App\Models\Kpi;
use App\Models\Measurement;
use App\Models\User;
use App\Organisation\Rights;
use App\Register\Views\ListItem;
use App\Register\Views\RegisterLine;
use App\Register\Views\RegisterPage;
use App\Support\Month;
use App\Views\PersonView;
use Illuminate\Database\Connection;
use Kybernet\Core\Workbook\Sourcing;
use stdClass;

/**
 * Lays out the register: the KPIs that a person sees, and the lists that definitions choose from.
 */
final readonly class RegisterReader
{
    public function __construct(private Rights $rights, private Connection $database) {}

    public function page(User $user): RegisterPage
    {
        $objectives = $this->database->table('objectives')->pluck('code', 'id');
        $kpis = Kpi::query()
            ->with(['department', 'theme', 'measurements.owner', 'measurements.unit'])->withExists('ruleSets')
            ->get()
            ->filter(fn (Kpi $kpi): bool => $this->rights->seesAll($user)
                || $kpi->measurements->contains(fn (Measurement $measurement): bool => $this->rights->maySee($user, $measurement->unit_id, $measurement->owner_id)))
            ->sortBy(fn (Kpi $kpi): array => [$kpi->theme === null ? PHP_INT_MAX : $kpi->theme->position, $kpi->measurements->first()->position ?? 0, $kpi->code]);

        return new RegisterPage(
            array_values($kpis->map(fn (Kpi $kpi): RegisterLine => $this->line($kpi, $objectives->get($kpi->objective_id)))->all()),
            $this->items('themes'),
            $this->items('objectives'),
            array_values($this->database->table('users')->where('is_program', false)->orderBy('name')->get(['id', 'name'])->map(fn (stdClass $person): PersonView => new PersonView($person->id, $person->name))->all()),
        );
    }

    private function line(Kpi $kpi, ?string $objective): RegisterLine
    {
        $last = $kpi->measurements->map(fn (Measurement $measurement): string => $measurement->measured_to ?? '9999-12-31')->max();
        $running = Month::date(Month::running());

        return new RegisterLine(
            $kpi->code,
            $kpi->name,
            $kpi->measure,
            $kpi->department->code,
            $kpi->theme?->name,
            $objective,
            $kpi->level,
            $kpi->kind,
            $kpi->frequency,
            $kpi->polarity,
            $kpi->accumulation,
            array_values($kpi->measurements->map(fn (Measurement $measurement): string => $measurement->unit->code)->all()),
            array_values($kpi->measurements->map(fn (Measurement $measurement): string => $measurement->owner->name ?? '')->filter(fn (string $name): bool => $name !== '')->unique()->all()),
            $kpi->lacksLimits((bool) $kpi->getAttribute('rule_sets_exists')),
            (new Sourcing($kpi->source === '' ? null : $kpi->source, $kpi->due_day, $kpi->data_available, $kpi->definition_agreed, $kpi->note_required))->openQuestions(
                $kpi->measurements->every(fn (Measurement $measurement): bool => $measurement->is_gathered || $measurement->owner_id !== null),
                $kpi->formula === null,
            ),
            is_string($last) && $last < $running ? substr($last, 0, 7) : null,
        );
    }

    /** @return list<ListItem> */
    private function items(string $table): array
    {
        $column = $table === 'themes' ? 'theme_id' : 'objective_id';
        $items = $this->database->table($table)->leftJoin('kpis', "kpis.{$column}", '=', "{$table}.id")
            ->groupBy("{$table}.id")->orderBy("{$table}.position")->orderBy("{$table}.id")
            ->select(["{$table}.id", "{$table}.name"])->selectRaw($table === 'themes' ? "'' AS code" : 'objectives.code')->selectRaw('count(kpis.id) AS used')->get();

        return array_values($items->map(fn (stdClass $item): ListItem => new ListItem($item->id, $item->code, $item->name, $item->used))->all());
    }
}
