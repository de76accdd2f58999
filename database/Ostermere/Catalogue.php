<?php

declare(strict_types=1);

namespace Database\Ostermere;

/**
 * The KPIs of Ostermere Water.
 */
final class Catalogue
{
    /** Themes in the order in which a scorecard shows them. */
    public const THEMES = [
        'Customers', 'Leakage and mains', 'Works', 'Supply', 'Meters', 'Sewers', 'Water quality', 'Environment', 'Projects', 'People', 'Money',
    ];

    private const PERCENT = [0.0, 100.0];

    /** @return list<Plan> in register order */
    public static function plans(): array
    {
        return [...self::headline(), ...self::treatment(), ...self::network(), ...self::customers(), ...self::meters(), ...self::wastewater(), ...self::projects(), ...self::people(), ...self::money()];
    }

    /** @return list<Plan> */
    private static function headline(): array
    {
        return [
            new Plan('CSAT', 'Customer satisfaction', 'OST', 'Customers', 'of 10', 2, 'higher', 'mean', ['percent', '0', '3'], 8.05, 'Mean score of the monthly survey of 600 households.', trend: 0.012, noise: 0.008, aim: 1.01, stretch: 0.01),
            new Plan('WQ-COMP', 'Water quality compliance', 'OST', 'Water quality', '%', 2, 'higher', 'mean', ['percent', '0', '0.05'], 99.95, 'Samples at taps and works that met every standard.', noise: 0.0002, aim: 0.9997, within: self::PERCENT, weight: 3),
            new Plan('SUPPLY-INT', 'Supply interruptions over 3 h', 'OST', 'Supply', 'min a property', 2, 'lower', 'sum', ['percent', '0', '10'], 0.40, 'Minutes without water for an average property, in interruptions longer than three hours.', trend: -0.06, season: 0.18, noise: 0.10, aim: 0.93, stretch: 0.06, weight: 2),
            new Plan('USE-PP', 'Water used per person', 'OST', 'Supply', 'l/d', 1, 'lower', 'mean', ['percent', '0', '3'], 139.0, 'Household use divided by the people served.', trend: -0.009, season: 0.05, peak: 7, noise: 0.008, aim: 0.985, stretch: 0.01, shaped: true),
            new Plan('STOCK', 'Reservoir stock', 'OST', 'Supply', '% of full', 1, 'none', 'latest', ['', '', ''], 84.0, 'Water held in the four impounding reservoirs on the last day of the month.', season: 0.14, peak: 3, noise: 0.015, within: self::PERCENT),
            new Plan('POLLUTION', 'Pollution incidents', 'OST', 'Environment', 'incidents', 0, 'lower', 'sum', ['percent', '0', '15'], 3.1, 'Incidents of any category that reached a watercourse.', trend: -0.08, season: 0.25, noise: 0.25, aim: 0.97, stretch: 0.1, within: [0.0, 40.0], weight: 2),
            new Plan('ENERGY', 'Energy used', 'OST', 'Environment', 'MWh', 0, 'lower', 'sum', ['percent', '1', '4'], 11_800, 'Electricity bought or made for works, pumping and offices.', trend: -0.015, season: 0.06, noise: 0.012, aim: 0.975, stretch: 0.012, shaped: true),
            new Plan('CARBON', 'Carbon from operations', 'OST', 'Environment', 't CO₂e', 0, 'lower', 'sum', ['percent', '0', '5'], 3_050, 'Fuel, power, process emissions and transport, as carbon dioxide equivalent.', trend: -0.035, season: 0.05, noise: 0.02, aim: 0.93, stretch: 0.03, shaped: true),
            new Plan('LOST-TIME', 'Lost-time injuries', 'OST', 'People', 'injuries', 0, 'lower', 'sum', ['percent', '0', '0'], 0.16, 'Injuries to staff or contractors that cost a shift or more.', noise: 1.6, aim: 0.0, within: [0.0, 9.0], weight: 2),
            new Plan('OPEX', 'Operating cost', 'OST', 'Money', '£', 2, 'lower', 'sum', ['percent', '0', '2'], 6_450_000, 'Running cost of the regulated business before depreciation.', trend: 0.018, season: 0.02, noise: 0.008, aim: 1.035, stretch: -0.015, shaped: true, scaled: true, weight: 2),
            new Plan('CASH-IN', 'Cash collected', 'OST', 'Money', '£', 2, 'higher', 'sum', ['percent', '0', '3'], 11_200_000, 'Cash received from households and businesses.', trend: 0.03, season: 0.07, peak: 5, noise: 0.012, aim: 1.05, stretch: -0.025, shaped: true, scaled: true),
            new Plan('MILESTONES', 'Regulatory milestones met', 'OST', 'Projects', '%', 1, 'higher', 'mean', ['percent', '0', '8'], 94.0, 'Commitments to the regulator that were met in the month they were due.', noise: 0.02, aim: 1.0, within: self::PERCENT),
        ];
    }

    /** @return list<Plan> */
    private static function treatment(): array
    {
        return [
            new Plan('TURBIDITY', 'Turbidity samples within limit', 'TRT', 'Water quality', '%', 2, 'higher', 'mean', ['percent', '0', '0.1'], 99.92, 'Final-water samples below one turbidity unit.', noise: 0.0004, aim: 0.9998, within: self::PERCENT),
            new Plan('TASTE', 'Taste and odour complaints', 'TRT', 'Water quality', 'complaints', 0, 'lower', 'sum', ['percent', '0', '15'], 22, 'Contacts about taste or odour that were traced to a works.', trend: -0.03, season: 0.22, peak: 8, noise: 0.12, aim: 1.03, stretch: 0.03, shaped: true),
            new Plan('WORKS-OUT', 'Water into supply', 'TRT', 'Works', 'Ml/d', 1, 'none', 'mean', ['', '', ''], 286, 'Treated water that left the eight works.', season: 0.045, peak: 7, noise: 0.01),
            new Plan('OUTAGE', 'Unplanned outage of works', 'TRT', 'Works', '% of capacity', 2, 'lower', 'mean', ['percent', '0', '10'], 1.62, 'Capacity that was lost without notice, weighted by output.', trend: 0.125, noise: 0.045, aim: 1.20),
            new Plan('LOSSES', 'Treatment losses', 'TRT', 'Works', '%', 2, 'lower', 'mean', ['percent', '0', '5'], 3.4, 'Raw water that does not reach supply.', trend: -0.02, noise: 0.025, aim: 0.99, stretch: 0.02),
            new Plan('CHEM-COST', 'Chemicals per megalitre', 'TRT', 'Money', '£', 2, 'lower', 'mean', ['percent', '0', '5'], 31.5, 'Coagulant, lime and disinfectant used, divided by water into supply.', trend: 0.03, season: 0.04, peak: 11, noise: 0.02, aim: 1.07, stretch: -0.02),
            new Plan('KWH-ML', 'Energy per megalitre treated', 'TRT', 'Environment', 'kWh', 0, 'lower', 'mean', ['percent', '0', '3'], 486, 'Electricity of the works divided by water into supply.', trend: -0.015, season: 0.03, noise: 0.012, aim: 0.975, stretch: 0.015),
            new Plan('W-AVAIL', 'Works availability', 'works', 'Works', '%', 1, 'higher', 'mean', ['level', '97', '94'], 97.8, 'Hours in which the works could run at its rated output.', noise: 0.009, within: self::PERCENT),
            new Plan('W-NTU', 'Final water turbidity', 'works', 'Water quality', 'NTU', 3, 'lower', 'mean', ['level', '0.1', '0.2'], 0.072, 'Mean of the continuous meter on the final water.', season: 0.18, peak: 11, noise: 0.14),
            new Plan('W-ALARMS', 'Dosing alarms', 'works', 'Works', 'alarms', 0, 'lower', 'sum', ['percent', '0', '20'], 7.5, 'Alarms from the dosing plant that needed somebody to act.', noise: 0.22, aim: 1.18, within: [0.0, 200.0]),
            new Plan('W-PROCESS', 'Process water used', 'works', 'Works', '% of output', 2, 'lower', 'mean', ['percent', '0', '8'], 2.6, 'Water used to wash filters and carry chemicals.', trend: -0.02, noise: 0.035, aim: 1.0, stretch: 0.02),
        ];
    }

    /** @return list<Plan> */
    private static function network(): array
    {
        return [
            new Plan('LEAK', 'Leakage', 'NET', 'Leakage and mains', 'Ml/d', 1, 'lower', 'mean', ['percent', '0', '5'], 58.6, 'Water lost between the works and the meters, daily mean.', trend: -0.015, season: 0.03, noise: 0.008, aim: 0.955, stretch: 0.02, weight: 2),
            new Plan('BURSTS', 'Mains bursts', 'NET', 'Leakage and mains', 'bursts', 0, 'lower', 'sum', ['percent', '0', '12'], 71, 'Repairs to mains that failed, anywhere in the network.', trend: -0.03, season: 0.24, noise: 0.06, aim: 1.0, stretch: 0.03, shaped: true),
            new Plan('REPAIR5', 'Burst repairs within 5 days', 'NET', 'Leakage and mains', '%', 1, 'higher', 'mean', ['percent', '0', '5'], 94.4, 'Reported leaks that were repaired within five days.', noise: 0.012, aim: 1.006, within: self::PERCENT),
            new Plan('RENEWED', 'Mains renewed', 'NET', 'Leakage and mains', 'km', 1, 'higher', 'sum', ['percent', '0', '10'], 2.4, 'Length of main replaced and back in service.', trend: 0.05, season: 0.12, peak: 8, noise: 0.07, aim: 1.04, stretch: -0.05, shaped: true),
            new Plan('PRESSURE', 'Properties with low pressure', 'NET', 'Supply', 'properties', 0, 'lower', 'latest', ['percent', '0', '10'], 132, 'Properties on the register of low pressure at the end of the month.', trend: -0.08, noise: 0.03, aim: 0.84, stretch: 0.07),
            new Plan('NIGHT', 'Night flow per connection', 'NET', 'Supply', 'l/h', 2, 'lower', 'mean', ['percent', '0', '6'], 1.78, 'Flow between two and four in the morning, divided by connections.', trend: -0.01, season: 0.03, noise: 0.02, aim: 0.985, stretch: 0.01),
            new Plan('VALVES', 'Valves exercised', 'NET', 'Supply', 'valves', 0, 'higher', 'sum', ['percent', '0', '10'], 640, 'Strategic valves turned and logged.', season: 0.1, peak: 6, noise: 0.05, aim: 0.99, shaped: true),
            new Plan('SHUTDOWNS', 'Planned shutdowns on time', 'NET', 'Supply', '%', 1, 'higher', 'mean', ['percent', '0', '4'], 96.5, 'Planned interruptions that ended when the notice said.', noise: 0.012, aim: 0.985, within: self::PERCENT),
            new Plan('CHLORINE', 'Chlorine residual at taps', 'NET', 'Water quality', 'mg/l', 2, 'none', 'mean', ['', '', ''], 0.42, 'Free chlorine in samples taken at taps.', season: 0.08, peak: 1, noise: 0.03),
            new Plan('Z-LEAK', 'Leakage per connection', 'zones', 'Leakage and mains', 'l/d', 0, 'lower', 'mean', ['percent', '0', '5'], 116, 'Leakage of the zone divided by its connections.', trend: -0.015, season: 0.03, noise: 0.025, aim: 1.0, stretch: 0.015, weight: 2),
            new Plan('Z-BURSTS', 'Bursts in the zone', 'zones', 'Leakage and mains', 'bursts', 0, 'lower', 'sum', ['percent', '0', '25'], 5.6, 'Repairs to mains that failed in the zone.', season: 0.24, noise: 0.2, aim: 1.12, shaped: true, within: [0.0, 60.0]),
            new Plan('Z-REPAIR', 'Zone repairs within 5 days', 'zones', 'Leakage and mains', '%', 1, 'higher', 'mean', ['percent', '0', '6'], 95.0, 'Reported leaks of the zone that were repaired within five days.', noise: 0.022, aim: 0.995, within: self::PERCENT),
            new Plan('Z-NIGHT', 'Night flow in the zone', 'zones', 'Supply', 'l/h', 2, 'lower', 'mean', ['percent', '0', '6'], 1.76, 'Flow between two and four in the morning, divided by connections of the zone.', trend: -0.01, noise: 0.03, aim: 1.01, stretch: 0.01),
            new Plan('Z-COLOUR', 'Discoloured water contacts', 'zones', 'Water quality', 'contacts', 0, 'lower', 'sum', ['percent', '0', '25'], 6.2, 'Contacts about discoloured water from the zone.', season: 0.2, peak: 7, noise: 0.22, aim: 1.12, within: [0.0, 90.0]),
        ];
    }

    /** @return list<Plan> */
    private static function customers(): array
    {
        return [
            new Plan('CALLS30', 'Calls answered in 30 s', 'CUS', 'Customers', '%', 1, 'higher', 'mean', ['percent', '0', '6'], 82.5, 'Calls to the contact centre that were picked up within thirty seconds.', trend: 0.01, noise: 0.016, aim: 1.0, within: self::PERCENT, weight: 2),
            new Plan('COMPLAINTS', 'Written complaints', 'CUS', 'Customers', 'complaints', 0, 'lower', 'sum', ['percent', '0', '8'], 410, 'Letters, forms and messages that ask for something to be put right.', trend: -0.04, season: 0.06, peak: 5, noise: 0.035, aim: 0.98, stretch: 0.04),
            new Plan('FIRST', 'Resolved at first contact', 'CUS', 'Customers', '%', 1, 'higher', 'mean', ['percent', '0', '5'], 78.0, 'Contacts that did not come back within two weeks.', trend: 0.015, noise: 0.012, aim: 1.015, stretch: 0.015, within: self::PERCENT),
            new Plan('BILLS', 'Bills right first time', 'CUS', 'Customers', '%', 2, 'higher', 'mean', ['percent', '0', '0.5'], 99.1, 'Bills that were not corrected or reissued.', noise: 0.0012, aim: 0.9995, within: self::PERCENT),
            new Plan('METERS', 'Meters read', 'CUS', 'Customers', 'meters', 0, 'higher', 'sum', ['percent', '0', '5'], 18_400, 'Meters read by a person or a passing van.', trend: 0.04, season: 0.05, peak: 6, noise: 0.02, aim: 1.06, stretch: -0.04, shaped: true),
            new Plan('DEBT', 'Household debt over 12 months', 'CUS', 'Money', '£', 2, 'lower', 'latest', ['percent', '0', '4'], 4_150_000, 'What households have owed for longer than a year, at the end of the month.', trend: 0.05, noise: 0.008, aim: 1.06, stretch: -0.02, scaled: true),
        ];
    }

    /** @return list<Plan> */
    private static function meters(): array
    {
        return [
            new Plan('M-READ', 'Readings that arrived', 'meters', 'Meters', '%', 1, 'higher', 'mean', ['percent', '0', '3'], 96.8, 'Readings that the meters sent by themselves, of those that were due.', trend: 0.002, noise: 0.006, aim: 0.985, stretch: 0.004, within: self::PERCENT, weight: 0.1, quality: -0.02),
            new Plan('M-FAIL', 'Meters that failed', 'meters', 'Meters', 'meters', 0, 'lower', 'sum', ['percent', '0', '25'], 14, 'Meters of the model that stopped or were replaced early.', season: 0.12, noise: 0.1, aim: 1.3, stretch: 0.05, shaped: true, within: [0.0, 400.0], weight: 0.1, quality: 0.45),
            new Plan('M-QUERY', 'Queries about a reading', 'meters', 'Meters', 'queries', 0, 'lower', 'sum', ['percent', '0', '25'], 22, 'Queries from customers that were traced to a reading of the model.', season: 0.1, peak: 4, noise: 0.1, aim: 1.25, stretch: 0.05, within: [0.0, 400.0], weight: 0.1, quality: 0.35),
            new Plan('M-LEAD', 'Days from order to fitted', 'meters', 'Meters', 'days', 1, 'lower', 'mean', ['percent', '0', '15'], 11.5, 'From the order of a meter to the day on which it runs.', trend: -0.03, noise: 0.06, aim: 1.12, stretch: 0.03, weight: 0.1),
            new Plan('M-SAVED', 'Saved by a meter, less its cost', 'meters', 'Meters', '£', 2, 'higher', 'mean', ['percent', '0', '40'], 1.9, 'Water that a meter of the model saved in the month, less what it cost to own.', noise: 0.12, aim: 0.6, weight: 0.1, quality: -0.85),
        ];
    }

    /** @return list<Plan> */
    private static function wastewater(): array
    {
        return [
            new Plan('EFFLUENT', 'Effluent within consent', 'WST', 'Environment', '%', 1, 'higher', 'mean', ['level', '99', '97'], 99.3, 'Samples of treated effluent within their consent.', noise: 0.003, within: self::PERCENT, weight: 2),
            new Plan('SPILL', 'Storm overflow hours', 'WST', 'Environment', 'hours', 0, 'lower', 'sum', ['percent', '0', '15'], 1_150, 'Hours in which storm overflows were running.', trend: -0.05, season: 0.55, peak: 1, noise: 0.09, aim: 0.92, stretch: 0.05, shaped: true),
            new Plan('FLOODING', 'Internal sewer flooding', 'WST', 'Sewers', 'properties', 0, 'lower', 'sum', ['percent', '0', '15'], 12.0, 'Properties flooded inside by a sewer.', season: 0.3, peak: 12, noise: 0.14, aim: 1.06, shaped: true, within: [0.0, 300.0]),
            new Plan('BLOCKAGES', 'Sewer blockages', 'WST', 'Sewers', 'blockages', 0, 'lower', 'sum', ['percent', '0', '6'], 388, 'Blockages cleared in public sewers.', trend: -0.02, season: 0.1, peak: 12, noise: 0.03, aim: 1.0, stretch: 0.02, shaped: true),
            new Plan('PUMPS', 'Pumping stations available', 'WST', 'Sewers', '%', 1, 'higher', 'mean', ['level', '98', '96'], 98.6, 'Hours in which the stations could pump their design flow.', noise: 0.005, within: self::PERCENT),
            new Plan('SLUDGE', 'Sludge recycled to land', 'WST', 'Environment', 't', 0, 'none', 'sum', ['', '', ''], 2_250, 'Treated sludge spread on farmland, dry solids.', season: 0.3, peak: 9, noise: 0.05),
        ];
    }

    /** @return list<Plan> */
    private static function projects(): array
    {
        return [
            new Plan('DELIVERED', 'Programme value delivered', 'CAP', 'Projects', '£', 2, 'higher', 'sum', ['percent', '0', '8'], 4_900_000, 'Value of capital work certified in the month.', trend: 0.08, season: 0.16, peak: 2, noise: 0.05, aim: 1.12, stretch: -0.08, shaped: true, scaled: true, weight: 2),
            new Plan('GATES', 'Stage gates passed on date', 'CAP', 'Projects', '%', 1, 'higher', 'mean', ['percent', '0', '7'], 83.5, 'Projects that passed their stage gate in the month planned.', noise: 0.025, aim: 1.06, within: self::PERCENT),
            new Plan('LATE', 'Schemes past their date', 'CAP', 'Projects', 'schemes', 0, 'lower', 'latest', ['level', '6', '9'], 7.0, 'Schemes whose agreed completion date has gone by.', noise: 0.14, within: [0.0, 60.0]),
            new Plan('DEFECTS', 'Defects open at handover', 'CAP', 'Projects', 'defects', 0, 'lower', 'sum', ['percent', '0', '20'], 19, 'Defects that an operator found on the day of handover.', trend: -0.06, noise: 0.13, aim: 0.97, stretch: 0.06),
            new Plan('PERMITS', 'Street permits granted in time', 'CAP', 'Projects', '%', 1, 'higher', 'mean', ['percent', '0', '4'], 92.0, 'Permits that arrived before the crew was due.', noise: 0.02, aim: 0.985, within: self::PERCENT),
        ];
    }

    /** @return list<Plan> */
    private static function people(): array
    {
        return [
            new Plan('SICKNESS', 'Days lost to sickness', 'PPL', 'People', 'days a head', 2, 'lower', 'sum', ['percent', '0', '8'], 0.64, 'Working days lost to sickness, divided by staff in post.', season: 0.2, noise: 0.04, aim: 0.985, shaped: true),
            new Plan('TURNOVER', 'Staff turnover', 'PPL', 'People', '% a year', 1, 'lower', 'latest', ['percent', '0', '8'], 9.6, 'Leavers of the last twelve months, divided by staff in post.', trend: -0.03, noise: 0.018, aim: 0.97, stretch: 0.03),
            new Plan('VACANCIES', 'Vacancies open', 'PPL', 'People', 'posts', 0, 'lower', 'latest', ['percent', '0', '15'], 58, 'Approved posts that nobody fills at the end of the month.', trend: -0.04, noise: 0.06, aim: 0.97, stretch: 0.03),
            new Plan('TRAINED', 'Safety training in date', 'PPL', 'People', '%', 1, 'higher', 'latest', ['level', '95', '90'], 95.2, 'Staff whose safety training has not lapsed.', noise: 0.008, within: self::PERCENT),
            new Plan('NEAR-MISS', 'Near misses reported', 'PPL', 'People', 'reports', 0, 'higher', 'sum', ['percent', '0', '10'], 142, 'Reports of what nearly went wrong: more is better here.', trend: 0.06, noise: 0.06, aim: 1.08, stretch: -0.06),
            new Plan('PULSE', 'Pulse survey score', 'PPL', 'People', 'of 100', 0, 'higher', 'mean', ['percent', '0', '5'], 71, 'Mean answer to the five questions that all staff are asked each month.', noise: 0.012, aim: 1.0, from: '2026-04'),
        ];
    }

    /** @return list<Plan> */
    private static function money(): array
    {
        return [
            new Plan('CASH-MOVE', 'Cash movement', 'FIN', 'Money', '£', 2, 'higher', 'sum', ['percent', '0', '25'], 420_000, 'Cash in less cash out, before financing.', season: 2.6, peak: 6, noise: 0.28, aim: 0.9, shaped: true, scaled: true),
            new Plan('PAID30', 'Invoices paid in 30 days', 'FIN', 'Money', '%', 1, 'higher', 'mean', ['percent', '0', '4'], 95.5, 'Suppliers\' invoices that were paid within thirty days.', noise: 0.01, aim: 0.995, within: self::PERCENT),
            new Plan('DEBTOR-DAYS', 'Debtor days', 'FIN', 'Money', 'days', 1, 'lower', 'latest', ['percent', '0', '5'], 34.0, 'What is owed, divided by a day\'s billing.', trend: -0.01, noise: 0.015, aim: 0.985, stretch: 0.01),
            new Plan('FORECAST', 'Forecast error', 'FIN', 'Money', '%', 1, 'lower', 'mean', ['level', '3', '5'], 2.5, 'How far the month\'s cost ended from the forecast of three months before.', noise: 0.22, within: self::PERCENT),
        ];
    }
}
