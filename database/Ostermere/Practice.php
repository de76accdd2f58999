<?php

declare(strict_types=1);

namespace Database\Ostermere;

/**
 * How Ostermere Water keeps its figures: where they come from, what they serve, what drives them, what a colour means.
 */
final class Practice
{
    /** The last month that was closed, for every unit. */
    public const CLOSED_UNTIL = '2026-06';

    /** KPIs that are gathered over the units below a department, and how. */
    public const GATHERED = [['Z-COLOUR', 'NET', 'sum'], ['M-READ', 'MTR', 'mean'], ['M-FAIL', 'MTR', 'sum'], ['M-QUERY', 'MTR', 'sum'], ['M-LEAD', 'MTR', 'mean'], ['M-SAVED', 'MTR', 'mean']];

    /** What sewers were blocked by, and how much of it in a hundred. The parts are entered and add up to the KPI. */
    public const PARTS = ['BLOCKAGES' => ['fat and grease' => 46, 'wipes' => 31, 'roots' => 14, 'other' => 9]];

    /** The last month whose readings were handed in. */
    public const SUBMITTED_UNTIL = '2026-07';

    /** Objectives by code. */
    public const OBJECTIVES = [
        'SERVE' => 'Serve every customer well', 'SAFE' => 'Safe water, every day', 'LOSE-LESS' => 'Lose less water',
        'RIVERS' => 'Leave rivers better than we found them', 'PEOPLE' => 'Everybody goes home safe', 'VALUE' => 'Spend wisely',
    ];

    /** Sources, and the objective that is served, by theme. */
    public const THEMES = [
        'Customers' => ['Contact centre and survey house', 'SERVE'], 'Leakage and mains' => ['Network loggers and job system', 'LOSE-LESS'],
        'Works' => ['Works control system', 'SAFE'], 'Supply' => ['Network control room', 'SERVE'], 'Meters' => ['Meter register', 'SERVE'], 'Sewers' => ['Sewer job system', 'RIVERS'],
        'Water quality' => ['Laboratory', 'SAFE'], 'Environment' => ['Environmental register', 'RIVERS'], 'Projects' => ['Programme office', 'VALUE'],
        'People' => ['Personnel system', 'PEOPLE'], 'Money' => ['General ledger', 'VALUE'],
    ];

    /** KPIs that drive another. */
    public const DRIVERS = [
        'LEAK' => ['BURSTS', 'REPAIR5', 'RENEWED', 'NIGHT'], 'CSAT' => ['CALLS30', 'COMPLAINTS', 'FIRST'], 'SUPPLY-INT' => ['BURSTS', 'SHUTDOWNS'],
        'OPEX' => ['ENERGY', 'CHEM-COST'], 'NRW' => ['LEAK'], 'POLLUTION' => ['BLOCKAGES', 'PUMPS', 'SPILL'],
    ];

    /** What green, amber and red mean, in a KPI's own words. */
    public const TEXTS = [
        'LEAK' => ['Losses at or under the agreed glide path', 'Recoverable within the year with crews in place', 'Supply margin at risk in a dry spell; director informed'],
        'CALLS30' => ['Callers rarely wait', 'Waits are noticed; shifts are moved', 'Callers give up; the duty manager takes calls'],
        'WQ-COMP' => ['Every standard met', 'A single failure, cause known', 'More than one failure, or a cause unknown: the regulator is told'],
    ];

    /** KPIs whose bad colours must be explained before the month is handed in. */
    public const NOTE_REQUIRED = ['LEAK', 'CALLS30', 'WQ-COMP', 'POLLUTION', 'OUTAGE', 'LOST-TIME'];

    /** KPIs of which a question is still open: not measurable today, or not agreed. */
    public const NOT_AVAILABLE = ['PULSE'];

    public const NOT_AGREED = ['FORECAST', 'PULSE'];

    /** What was agreed: KPI, unit, the month that caused it, what, who, by when, state, what came of it. */
    public const ACTIONS = [
        ['LEAK', 'NET', '2026-07', 'Survey of the Fenwick trunk main, joint by joint', 'Tom Fairley', '2026-12-18', 'open', ''],
        ['LEAK', 'NET', '2026-05', 'Detection teams moved to the east side first', 'Field control', '2026-06-30', 'done', 'Moved on 8 June; finds doubled, but so did new breaks.'],
        ['REPAIR5', 'NET', '2026-08', 'Second repair shift on trial in Fenwick and Aldermoor', 'Field control', '2026-10-15', 'open', ''],
        ['Z-LEAK', 'Z-FENWICK', '2026-06', 'Clamps at the nine weeping joints', 'East side crew', '2026-09-30', 'open', ''],
        ['CALLS30', 'CUS', '2026-02', 'Thirty temporary agents until the backlog is gone', 'Asha Menon', '2026-03-31', 'done', 'In place from 9 March; the backlog was cleared on 22 May.'],
        ['COMPLAINTS', 'CUS', '2026-03', 'Letters of apology to the accounts billed late', 'Asha Menon', '2026-04-15', 'done', '9,000 letters sent.'],
        ['FLOODING', 'WST', '2025-11', 'Non-return valves in Saltmarsh Road', 'Gil Ferrant', '2026-07-31', 'done', 'All 19 fitted; no flooding there since.'],
        ['RENEWED', 'NET', '2026-06', 'A second contractor for the autumn', 'Nadia Brook', '2026-09-15', 'dropped', 'The first one is back at full strength.'],
        ['OUTAGE', 'TRT', '2026-07', 'Spare membrane set for Harrow Lane', 'Petra Holloway', '2026-12-31', 'open', ''],
    ];

    /** Calls of a person over what was computed: KPI, unit, month, status, reason, whose. */
    public const CALLS = [
        ['BURSTS', 'NET', '2026-07', 'green', 'Dry ground all over the region; the network itself did as planned.', 'head@ostermere.example'],
    ];

    /** What is expected and what is being done, beside the reason of a note: by KPI, unit and month. */
    public const OUTLOOKS = [
        'LEAK/NET/2026-08' => ['Back under 60 Ml/d by November.', 'A third crew from 4 September; pressure on the east side lowered at night.'],
        'LEAK/NET/2026-07' => ['No better before the survey is in.', 'Survey of the Fenwick trunk main, results by the end of September.'],
        'Z-LEAK/Z-FENWICK/2026-08' => ['Falls when the trunk main is clamped.', 'Third crew, and clamps at nine joints.'],
    ];
}
