<?php

declare(strict_types=1);

namespace Database\Ostermere;

/**
 * What happened at Ostermere Water: months that bend a figure, the notes that explain them, and what never arrived.
 */
final class Story
{
    public const FIRST_MONTH = '2024-04';

    public const LAST_MONTH = '2026-08';

    /**
     * KPI, unit, month, the factor on that month's figure, the note. A factor of 1 leaves the figure as it is.
     *
     * @return list<array{string, string, string, float, string}>
     */
    public static function events(): array
    {
        return [
            // A dry summer on old iron mains: the network's own story, and why leakage is where the hour should go.
            ['LEAK', 'NET', '2025-08', 1.04, 'Ground shrinkage after eleven dry weeks. Detection teams doubled until October.'],
            ['LEAK', 'NET', '2026-04', 1.03, 'Cold spring and late bursts; detection moves to the east side first.'],
            ['LEAK', 'NET', '2026-05', 1.05, ''],
            ['LEAK', 'NET', '2026-06', 1.09, 'Dry ground, more joint failures than usual on the iron mains in Fenwick and Aldermoor.'],
            ['LEAK', 'NET', '2026-07', 1.13, 'Joint failures continue. Survey of the Fenwick trunk main is agreed, results by the end of September.'],
            ['LEAK', 'NET', '2026-08', 1.18, 'Two new bursts on the Fenwick trunk main; a third crew starts on 4 September. We expect to be back under 60 by November.'],
            ['REPAIR5', 'NET', '2026-07', 0.975, 'Crews tied up on the Fenwick trunk main from the 9th.'],
            ['REPAIR5', 'NET', '2026-08', 0.962, 'Two crews on the Fenwick main until the 20th; normal since.'],
            ['BURSTS', 'NET', '2025-01', 1.22, 'Eight nights of hard frost. Within what the winter plan allows for.'],
            ['BURSTS', 'NET', '2026-07', 1.13, 'Dry ground; see leakage.'],
            ['RENEWED', 'NET', '2026-06', 0.82, 'Contractor moved to emergency work for two weeks; the length comes back in the autumn.'],
            ['Z-LEAK', 'Z-FENWICK', '2026-05', 1.07, 'Night flow up on the east side; correlators out.'],
            ['Z-LEAK', 'Z-FENWICK', '2026-06', 1.16, 'Trunk main weeps at three joints. Clamps fitted, renewal being scoped.'],
            ['Z-LEAK', 'Z-FENWICK', '2026-07', 1.22, 'Survey started at the reservoir end; nothing found yet.'],
            ['Z-LEAK', 'Z-FENWICK', '2026-08', 1.27, 'Two bursts on the trunk main; third crew from 4 September.'],
            ['Z-LEAK', 'Z-ALDERMOOR', '2026-08', 1.10, 'Same iron mains as Fenwick; valves being operated to lower the night pressure.'],
            ['Z-BURSTS', 'Z-FENWICK', '2026-08', 1.9, 'Trunk main; see leakage.'],
            ['Z-REPAIR', 'Z-FENWICK', '2026-07', 0.93, 'Trunk main first.'],
            ['Z-REPAIR', 'Z-FENWICK', '2026-08', 0.91, 'Trunk main first; the backlog is nine repairs.'],
            ['Z-NIGHT', 'Z-FENWICK', '2026-07', 1.09, ''],
            ['Z-NIGHT', 'Z-FENWICK', '2026-08', 1.13, 'Follows the leakage on the trunk main.'],
            ['Z-LEAK', 'Z-QUARREL-HILL', '2026-07', 1.07, ''],
            ['Z-LEAK', 'Z-QUARREL-HILL', '2026-08', 1.09, 'Two weeping hydrants found and fixed on the 27th.'],
            ['Z-BURSTS', 'Z-QUARREL-HILL', '2026-08', 1.7, 'Surge when the booster was switched; a soft start is on order.'],
            ['Z-REPAIR', 'Z-QUARREL-HILL', '2026-08', 0.92, 'Traffic permits for the high street took nine days.'],
            ['Z-COLOUR', 'Z-HOLM-BAY', '2026-08', 1.8, 'Second flush of the reservoir clean; ended on the 19th.'],
            ['Z-COLOUR', 'Z-HOLM-BAY', '2026-07', 1.9, 'Flushing after the reservoir clean stirred up deposits for four days.'],
            // A new billing system: a red streak that recovered.
            ['CALLS30', 'CUS', '2026-01', 0.84, 'New billing system went live on the 12th; calls twice as long as before.'],
            ['CALLS30', 'CUS', '2026-02', 0.80, 'Backlog of unbilled accounts. Thirty temporary agents start in March.'],
            ['CALLS30', 'CUS', '2026-03', 0.85, 'Temporary agents in training; backlog falling by 400 a week.'],
            ['CALLS30', 'CUS', '2026-04', 0.90, 'Backlog halved.'],
            ['CALLS30', 'CUS', '2026-05', 0.955, 'Backlog cleared on the 22nd.'],
            ['CALLS30', 'CUS', '2026-06', 1.015, 'Back on course: the backlog is gone and the agents stay until August.'],
            ['COMPLAINTS', 'CUS', '2026-02', 1.28, 'Late first bills from the new system.'],
            ['COMPLAINTS', 'CUS', '2026-03', 1.24, 'Late first bills; apology letters sent to 9,000 accounts.'],
            ['COMPLAINTS', 'CUS', '2026-04', 1.12, 'Falling as the backlog clears.'],
            ['BILLS', 'CUS', '2026-01', 0.988, 'Tariff table loaded wrong for shared supplies; corrected on the 30th.'],
            ['BILLS', 'CUS', '2026-02', 0.992, 'Reissues for shared supplies.'],
            ['CSAT', 'OST', '2026-02', 0.955, 'The billing change shows in the survey.'],
            ['CSAT', 'OST', '2026-03', 0.96, 'As in February.'],
            // Storms.
            ['FLOODING', 'WST', '2025-11', 2.1, 'Storm of 14–16 November: 19 of 27 properties are in Saltmarsh Road and were visited within a day.'],
            ['SPILL', 'WST', '2025-11', 1.5, 'Storm of 14–16 November.'],
            ['POLLUTION', 'OST', '2025-11', 2.2, 'Four of the incidents are one rising main that failed in the storm.'],
            ['FLOODING', 'WST', '2026-01', 1.5, 'Wet month on saturated ground.'],
            ['PUMPS', 'WST', '2026-06', 0.976, 'Two stations rewired after a lightning strike.'],
            ['POLLUTION', 'OST', '2026-07', 1.7, 'Power failure at three pumping stations on the 11th; standby sets now tested monthly.'],
            // Treatment: a works out, and a slow drift behind it.
            ['OUTAGE', 'TRT', '2026-06', 1.04, ''],
            ['OUTAGE', 'TRT', '2026-07', 1.08, 'Pump seals at Stonewell, twice. Spares are now kept at the works.'],
            ['OUTAGE', 'TRT', '2026-08', 1.16, 'Mirefield filter 3 out for 11 days with a cracked floor. Spare capacity is thin until it is back on 20 September.'],
            ['W-AVAIL', 'W-MIREFIELD', '2026-08', 0.947, 'Filter 3 out for 11 days, cracked under-drain floor. Back on 20 September.'],
            ['W-AVAIL', 'W-COLDBECK', '2026-05', 0.965, 'Intake screens renewed, planned.'],
            ['W-NTU', 'W-SALTMARSH-ROAD', '2025-11', 2.3, 'River in flood; coagulant dose raised, all samples stayed under one unit.'],
            ['TASTE', 'TRT', '2026-08', 1.3, 'Algae in the Upper Dunnel reservoir; carbon dosing on since the 18th.'],
            ['CHEM-COST', 'TRT', '2026-08', 1.07, 'Carbon dosing at Upper Dunnel.'],
            // Projects, people, money.
            ['DELIVERED', 'CAP', '2026-05', 0.83, 'Steel for Kestrel Bank late by five weeks.'],
            ['DELIVERED', 'CAP', '2026-06', 0.88, 'Kestrel Bank steel arrived on the 24th.'],
            ['GATES', 'CAP', '2026-06', 0.93, 'Three schemes wait for land access.'],
            ['GATES', 'CAP', '2026-08', 0.91, 'Land access again: legal team takes it up with both estates in September.'],
            ['LATE', 'CAP', '2026-08', 1.42, 'Kestrel Bank and two pumping stations passed their dates; new dates agreed with operations.'],
            ['SICKNESS', 'PPL', '2026-01', 1.22, 'Influenza in the depots in the second and third week.'],
            ['LOST-TIME', 'OST', '2026-06', 1.0, ''],
            ['OPEX', 'OST', '2026-08', 1.03, 'Overtime on the Fenwick main and carbon at Upper Dunnel, about £150k together.'],
            ['FORECAST', 'FIN', '2026-08', 1.7, 'Overtime and chemicals were not in the May forecast.'],
        ];
    }

    /**
     * Counts that chance would make too smooth or too wild: told month by month from April 2024.
     *
     * @return array<string, list<int>>
     */
    public static function told(): array
    {
        return [
            'LOST-TIME' => [0, 0, 1, 0, 0, 0, 0, 2, 0, 0, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0],
        ];
    }

    /**
     * Readings that never came or are late: KPI, unit, month.
     *
     * @return list<array{string, string, string}>
     */
    public static function missing(): array
    {
        $missing = [
            ['NIGHT', 'NET', '2026-08'],
            ['VALVES', 'NET', '2026-08'],
            ['NIGHT', 'NET', '2025-02'],
            ['TASTE', 'TRT', '2025-06'],
            ['PERMITS', 'CAP', '2026-04'],
            ['Z-COLOUR', 'Z-SANDRY', '2026-08'],
            ['Z-NIGHT', 'Z-TOLLGATE', '2026-08'],
            ['Z-NIGHT', 'Z-TOLLGATE', '2026-07'],
            ['CSAT', 'OST', '2026-08'],
        ];
        // Wastewater is late with its August return: only one of its figures is in.
        foreach (['SPILL', 'FLOODING', 'BLOCKAGES', 'PUMPS', 'SLUDGE'] as $code) {
            $missing[] = [$code, 'WST', self::LAST_MONTH];
        }

        return $missing;
    }
}
