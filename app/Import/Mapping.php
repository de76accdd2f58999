<?php

declare(strict_types=1);

namespace App\Import;

use App\Tables\NumberCell;

/**
 * What the columns of a table of figures hold. It is recognised by their heads and can be corrected.
 */
final readonly class Mapping
{
    public const ROLES = ['kpi', 'unit', 'period', 'layer', 'actual', 'target', 'low', 'high', 'note'];

    /** In English, German, French and Dutch. */
    private const HEADS = [
        'kpi' => ['kpi', 'code', 'kpi code', 'kpi name', 'name', 'indicator', 'figure', 'kennzahl', 'kennzahlen', 'indikator', 'kürzel', 'indicateur', 'indicateur clé', 'libellé', 'kpi-code', 'prestatie-indicator', 'kengetal'],
        'unit' => ['unit', 'unit code', 'department', 'site', 'works', 'zone', 'where', 'einheit', 'abteilung', 'bereich', 'standort', 'werk', 'unité', 'service', 'département', 'eenheid', 'afdeling', 'locatie', 'vestiging'],
        'period' => ['period', 'month', 'date', 'week', 'quarter', 'year', 'zeitraum', 'monat', 'datum', 'woche', 'quartal', 'jahr', 'période', 'periode', 'mois', 'semaine', 'trimestre', 'année', 'maand', 'kwartaal', 'jaar'],
        'layer' => ['layer', 'kind', 'type', 'ebene', 'art', 'couche', 'nature', 'laag', 'soort'],
        'actual' => ['actual', 'actuals', 'value', 'reading', 'result', 'ist', 'istwert', 'ist-wert', 'wert', 'ergebnis', 'réel', 'réalisé', 'valeur', 'résultat', 'werkelijk', 'waarde', 'realisatie', 'resultaat'],
        'target' => ['target', 'targets', 'plan', 'budget', 'ziel', 'zielwert', 'soll', 'sollwert', 'objectif', 'cible', 'doel', 'streefwaarde', 'norm'],
        'low' => ['low', 'lower', 'from', 'untergrenze', 'unten', 'von', 'borne inférieure', 'min', 'ondergrens'],
        'high' => ['high', 'upper', 'to', 'obergrenze', 'oben', 'bis', 'borne supérieure', 'max', 'bovengrens'],
        'note' => ['note', 'notes', 'comment', 'reason', 'remark', 'bemerkung', 'notiz', 'kommentar', 'grund', 'remarque', 'commentaire', 'motif', 'opmerking', 'toelichting', 'reden'],
    ];

    /**
     * @param  array<int, string>  $roles  what a column holds: one of {@see ROLES}
     * @param  array<int, string>  $periods  columns that are a period each, with its text as it stands in the head
     */
    public function __construct(public array $roles, public array $periods) {}

    /**
     * @param  list<string|NumberCell>  $head  the first row
     * @param  callable(string): bool  $isPeriod
     */
    public static function recognise(array $head, callable $isPeriod): self
    {
        $roles = [];
        $periods = [];
        foreach ($head as $column => $cell) {
            $text = trim($cell instanceof NumberCell ? $cell->text : $cell);
            $role = self::role($text);
            if ($role !== null && ! in_array($role, $roles, true)) {
                $roles[$column] = $role;
            } elseif ($isPeriod($text)) {
                $periods[$column] = $text;
            }
        }

        return new self($roles, $periods);
    }

    /** @param  array{roles?: array<int, string>, periods?: array<int, string>}  $kept  as it is kept with an import */
    public static function kept(array $kept): self
    {
        return new self($kept['roles'] ?? [], $kept['periods'] ?? []);
    }

    public function isWide(): bool
    {
        return $this->periods !== [] && ! in_array('period', $this->roles, true);
    }

    /** The column that holds it; null where none does. */
    public function column(string $role): ?int
    {
        $column = array_search($role, $this->roles, true);

        return $column === false ? null : $column;
    }

    /** What must be said before the file can be read; '' where nothing is missing. */
    public function problem(): string
    {
        $has = fn (string $role): bool => in_array($role, $this->roles, true);

        return match (true) {
            ! $has('kpi') => 'Say which column names the KPI.',
            $this->isWide() => '',
            ! $has('period') => 'Say which column holds the period, or choose the columns that are a month each.',
            ! $has('actual') && ! $has('target') && ! $has('low') && ! $has('note') => 'Say which column holds the figures.',
            $has('low') !== $has('high') => 'A band needs both columns, low and high.',
            default => '',
        };
    }

    private static function role(string $head): ?string
    {
        $plain = mb_strtolower(trim($head));
        foreach (self::HEADS as $role => $heads) {
            if (in_array($plain, $heads, true)) {
                return $role;
            }
        }

        return null;
    }
}
