<?php

declare(strict_types=1);

use App\Briefings\BriefingController;
use App\Briefings\LinkController;
use App\Briefings\PaperController;
use App\Compare\CompareController;
use App\Exchange\BookController;
use App\Exchange\ExportController;
use App\Import\ImportController;
use App\Logbook\LogbookController;
use App\Logbook\PeriodController;
use App\Logbook\TargetController;
use App\Models\Briefing;
use App\Models\Kpi;
use App\Models\RecordSet;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\FirstMonthController;
use App\Organisation\ShapeController;
use App\Organisation\UnitController;
use App\People\AccountController;
use App\People\BeginningController;
use App\People\EntryController;
use App\People\PeopleController;
use App\People\PeopleListController;
use App\People\SessionController;
use App\People\StandInController;
use App\Register\DefinitionController;
use App\Register\KpiController;
use App\Register\ListController;
use App\Register\StarterController;
use App\Review\FollowUpController;
use App\Review\ReviewController;
use App\Review\ReviewFileController;
use App\Settings\LogoController;
use App\Settings\MailController;
use App\Settings\SettingsController;
use App\Settings\TokenController;
use App\Sources\BehindController;
use App\Sources\LoadController;
use App\Sources\PreviewController;
use App\Sources\SourceController;
use App\Sources\WayController;
use App\Trail\ChangeController;
use Illuminate\Support\Facades\Route;

Route::get('session', [SessionController::class, 'show']);
Route::post('session', [SessionController::class, 'store'])->middleware('throttle:sign-in');
Route::post('forgotten', [SessionController::class, 'forgotten'])->middleware('throttle:forgotten');

// Who has the link that the installation printed, and nobody else, begins an organisation.
// Who has a link that an administrator handed over chooses a password with it.
Route::get('entry', [EntryController::class, 'show'])->middleware('throttle:beginning');
Route::post('entry', [EntryController::class, 'store'])->middleware('throttle:beginning');
Route::get('beginning', [BeginningController::class, 'show'])->middleware('throttle:beginning');
Route::post('beginning', [BeginningController::class, 'store'])->middleware('throttle:beginning');

// A person has one session, their own; every other address is behind a policy.
Route::middleware('auth')->group(function (): void {
    Route::patch('session', [SessionController::class, 'update']);
    Route::delete('session', [SessionController::class, 'destroy']);

    Route::get('units/{unit}/ribbon', [ReviewController::class, 'ribbon'])->can('view', 'unit');
    Route::get('units/{unit}/weeks', [ReviewController::class, 'weeks'])->can('view', 'unit');
    Route::get('units/{unit}/scorecard', [ReviewController::class, 'scorecard'])->can('view', 'unit');
    Route::get('units/{unit}/logbook', [LogbookController::class, 'show'])->can('view', 'unit');
    Route::get('units/{unit}/grid', [LogbookController::class, 'grid'])->can('view', 'unit');
    Route::put('units/{unit}/cells', [LogbookController::class, 'cells'])->can('log', 'unit');
    Route::post('units/{unit}/cells', [LogbookController::class, 'tryCells'])->can('log', 'unit');

    Route::post('units/{unit}/submission', [PeriodController::class, 'submit'])->can('log', 'unit');
    Route::get('units/{unit}/closing', [PeriodController::class, 'show'])->can('view', 'unit');
    Route::put('units/{unit}/closing', [PeriodController::class, 'close'])->can('close', 'unit');
    Route::post('units/{unit}/reopening', [PeriodController::class, 'reopen'])->can('close', 'unit');

    Route::get('units/{unit}/figures', [ExportController::class, 'figures'])->can('view', 'unit');
    Route::get('definitions', [DefinitionController::class, 'file'])->can('defineAll', Kpi::class);
    Route::post('definitions', [DefinitionController::class, 'store'])->can('defineAll', Kpi::class);
    Route::post('definitions/{upload}', [DefinitionController::class, 'apply'])->whereUuid('upload')->can('defineAll', Kpi::class);

    Route::get('people', [PeopleController::class, 'index'])->can('administer', User::class);
    Route::get('people/file', [PeopleListController::class, 'file'])->can('administer', User::class);
    Route::post('people-lists/preview', [PeopleListController::class, 'preview'])->can('administer', User::class);
    Route::post('people-lists', [PeopleListController::class, 'store'])->can('administer', User::class);
    Route::post('people', [PeopleController::class, 'store'])->can('administer', User::class);
    Route::put('people/{person}', [PeopleController::class, 'update'])->can('administer', User::class);
    Route::post('people/{person}/link', [PeopleController::class, 'link'])->can('administer', User::class);
    Route::put('people/{person}/block', [PeopleController::class, 'block'])->can('administer', User::class);
    Route::delete('people/{person}/second-factor', [PeopleController::class, 'takeFactorOff'])->can('administer', User::class);
    Route::get('people/{person}/duties', [PeopleController::class, 'duties'])->can('administer', User::class);
    Route::post('people/{person}/leaving', [PeopleController::class, 'leave'])->can('administer', User::class);
    Route::get('stand-ins', [StandInController::class, 'index'])->can('administer', User::class);
    Route::post('people/{person}/stand-ins', [StandInController::class, 'store'])->can('arrange', 'person');
    Route::delete('people/{person}/stand-ins/{standIn}', [StandInController::class, 'destroy'])->can('arrange', 'person');

    Route::get('account', [AccountController::class, 'show']);
    Route::patch('account', [AccountController::class, 'rename']);
    Route::post('account/second-factor', [AccountController::class, 'beginFactor']);
    Route::put('account/second-factor', [AccountController::class, 'confirmFactor'])->middleware('throttle:password');
    Route::delete('account/second-factor', [AccountController::class, 'takeFactorOff'])->middleware('throttle:password');
    Route::delete('account/sessions', [AccountController::class, 'endOthers']);
    Route::delete('account/sessions/{session}', [AccountController::class, 'end']);
    Route::put('session/password', [SessionController::class, 'password'])->middleware('throttle:password');

    Route::get('book', [BookController::class, 'file'])->can('exportAll', User::class);
    Route::post('book', [BookController::class, 'store'])->can('exportAll', User::class);
    Route::post('book/{upload}', [BookController::class, 'apply'])->whereUuid('upload')->can('exportAll', User::class);
    Route::get('settings', [SettingsController::class, 'show'])->can('administer', User::class);
    Route::put('settings', [SettingsController::class, 'update'])->can('administer', User::class);
    Route::get('settings/new-kpi', [SettingsController::class, 'newKpi'])->can('define', Kpi::class);
    Route::get('settings/everything', [SettingsController::class, 'everything'])->can('exportAll', User::class);
    Route::put('settings/mail', [MailController::class, 'update'])->can('administer', User::class);
    Route::post('settings/mail/trial', [MailController::class, 'try'])->can('administer', User::class)->middleware('throttle:password');
    Route::get('logo', [LogoController::class, 'show'])->can('viewAny', Kpi::class);
    Route::post('logo', [LogoController::class, 'store'])->can('administer', User::class);
    Route::delete('logo', [LogoController::class, 'destroy'])->can('administer', User::class);
    Route::delete('demonstration', [SettingsController::class, 'leave'])->can('administer', User::class);
    Route::get('tokens', [TokenController::class, 'index'])->can('administer', User::class);
    Route::post('tokens', [TokenController::class, 'store'])->can('administer', User::class);
    Route::delete('tokens/{token}', [TokenController::class, 'destroy'])->can('administer', User::class);

    Route::get('first-month', [FirstMonthController::class, 'show'])->can('administer', Unit::class);
    Route::delete('first-month', [FirstMonthController::class, 'destroy'])->can('administer', Unit::class);
    Route::get('units', [UnitController::class, 'index'])->can('administer', Unit::class);
    Route::get('units/{unit}', [UnitController::class, 'show'])->can('know', 'unit');
    Route::post('unit-shapes/preview', [ShapeController::class, 'preview'])->can('administer', Unit::class);
    Route::post('unit-shapes', [ShapeController::class, 'store'])->can('administer', Unit::class);
    Route::delete('units/{unit}/shape', [ShapeController::class, 'destroy'])->can('administer', Unit::class);
    Route::put('units/{unit}', [UnitController::class, 'change'])->can('administer', Unit::class);
    Route::delete('units/{unit}', [UnitController::class, 'takeAway'])->can('administer', Unit::class);
    Route::put('units/{unit}/order', [UnitController::class, 'order'])->can('administer', Unit::class);
    Route::put('units/{unit}/retirement', [UnitController::class, 'retire'])->can('administer', Unit::class);
    Route::delete('units/{unit}/retirement', [UnitController::class, 'bringBack'])->can('administer', Unit::class);
    Route::post('unit-lists/preview', [UnitController::class, 'preview'])->can('administer', Unit::class);
    Route::post('unit-lists', [UnitController::class, 'store'])->can('administer', Unit::class);
    Route::delete('unit-lists/{batch}', [UnitController::class, 'destroy'])->whereUuid('batch')->can('administer', Unit::class);

    Route::post('units/{unit}/imports', [ImportController::class, 'store'])->can('log', 'unit');
    Route::get('imports/{import}', [ImportController::class, 'show'])->can('handle', 'import');
    Route::put('imports/{import}/head', [ImportController::class, 'head'])->can('handle', 'import');
    Route::put('imports/{import}/mapping', [ImportController::class, 'map'])->can('handle', 'import');
    Route::post('imports/{import}/application', [ImportController::class, 'apply'])->can('handle', 'import');
    Route::delete('imports/{import}/application', [ImportController::class, 'undo'])->can('handle', 'import');

    Route::get('texts', [ReviewController::class, 'texts'])->can('viewAny', Kpi::class);
    Route::get('changes', ChangeController::class)->can('viewAny', Kpi::class);

    Route::get('briefings', [BriefingController::class, 'index'])->can('viewAny', Kpi::class);
    Route::get('briefing-kinds', [BriefingController::class, 'kinds'])->can('make', Briefing::class);
    Route::post('briefings', [BriefingController::class, 'store'])->can('make', Briefing::class);
    Route::get('briefings/{briefing}', [BriefingController::class, 'show'])->can('view', 'briefing');
    Route::get('briefings/{briefing}/pdf', [PaperController::class, 'show'])->can('view', 'briefing');
    Route::get('briefing-pack', [PaperController::class, 'pack'])->can('viewAny', Kpi::class);
    Route::get('briefings/{briefing}/links', [LinkController::class, 'index'])->can('change', 'briefing');
    Route::post('briefings/{briefing}/links', [LinkController::class, 'store'])->can('change', 'briefing');
    Route::delete('briefings/{briefing}/links/{link}', [LinkController::class, 'destroy'])->can('change', 'briefing');
    Route::post('briefings/{briefing}/pictures', [BriefingController::class, 'picture'])->can('change', 'briefing');
    Route::put('briefings/{briefing}/draft', [BriefingController::class, 'keep'])->can('change', 'briefing');
    Route::post('briefings/{briefing}/preview', [BriefingController::class, 'preview'])->can('change', 'briefing');
    Route::get('briefings/{briefing}/commentary', [BriefingController::class, 'commentary'])->can('change', 'briefing');
    Route::post('briefings/{briefing}/issues', [BriefingController::class, 'publish'])->can('change', 'briefing');
    Route::get('briefings/{briefing}/arrangement', [BriefingController::class, 'arrangement'])->can('change', 'briefing');
    Route::put('briefings/{briefing}/arrangement', [BriefingController::class, 'arrange'])->can('change', 'briefing');
    Route::put('briefings/{briefing}/retirement', [BriefingController::class, 'retire'])->can('change', 'briefing');
    Route::delete('briefings/{briefing}/retirement', [BriefingController::class, 'bringBack'])->can('change', 'briefing');

    Route::get('units/{unit}/scorecard/file', [ReviewFileController::class, 'scorecard'])->can('view', 'unit');
    Route::get('units/{unit}/matrix/file', [ReviewFileController::class, 'matrix'])->can('view', 'unit');
    Route::get('units/{unit}/exceptions/file', [ReviewFileController::class, 'exceptions'])->can('view', 'unit');
    Route::get('units/{unit}/comparison', [CompareController::class, 'show'])->can('view', 'unit');
    Route::get('units/{unit}/comparison/ranks', [CompareController::class, 'ranks'])->can('view', 'unit');
    Route::get('units/{unit}/comparison/file', [CompareController::class, 'file'])->can('view', 'unit');
    Route::get('units/{unit}/matrix', [ReviewController::class, 'matrix'])->can('view', 'unit');
    Route::get('units/{unit}/exceptions', [ReviewController::class, 'exceptions'])->can('view', 'unit');
    Route::get('measurements/{measurement}', [ReviewController::class, 'row'])->can('view', 'measurement');
    Route::get('measurements/{measurement}/records', [BehindController::class, 'records'])->can('view', 'measurement');
    Route::get('measurements/{measurement}/records/file', [BehindController::class, 'file'])->can('view', 'measurement');
    Route::get('measurements/{measurement}/cases', [BehindController::class, 'cases'])->can('view', 'measurement');
    Route::get('measurements/{measurement}/splits', [BehindController::class, 'splits'])->can('view', 'measurement');
    Route::get('units/{unit}/kpis/{kpi}', [ReviewController::class, 'kpi'])->can('view', 'kpi');
    Route::get('units/{unit}/kpis/{kpi}/what-if', [ReviewController::class, 'whatIf'])->can('view', 'kpi');
    Route::put('measurements/{measurement}/call', [FollowUpController::class, 'call'])->can('call', 'measurement');
    Route::put('measurements/{measurement}/seen', [FollowUpController::class, 'seen'])->can('view', 'measurement');
    Route::put('actions/{action}', [FollowUpController::class, 'follow'])->can('follow', 'action');
    Route::where(['period' => '(FY)?(199\d|20\d\d)(-W?\d\d|-Q[1-4])?'])->group(function (): void {
        Route::put('measurements/{measurement}/readings/{period}', [LogbookController::class, 'reading'])->can('log', 'measurement');
        Route::post('measurements/{measurement}/readings/{period}/preview', [LogbookController::class, 'preview'])->can('log', 'measurement');
        Route::put('measurements/{measurement}/notes/{period}', [LogbookController::class, 'note'])->can('log', 'measurement');
        Route::post('measurements/{measurement}/actions/{period}', [FollowUpController::class, 'agree'])->can('log', 'measurement');
    });

    Route::post('record-preview', PreviewController::class)->can('make', RecordSet::class);
    Route::get('record-sets', [SourceController::class, 'index'])->can('viewAny', RecordSet::class);
    Route::post('record-samples', [SourceController::class, 'sample'])->can('make', RecordSet::class);
    Route::post('record-values', [SourceController::class, 'values'])->can('make', RecordSet::class);
    Route::post('record-sets', [SourceController::class, 'store'])->can('make', RecordSet::class);
    Route::get('record-sets/{recordSet}', [SourceController::class, 'show'])->can('view', 'recordSet');
    Route::put('record-sets/{recordSet}', [SourceController::class, 'update'])->can('change', 'recordSet');
    Route::get('record-sets/{recordSet}/file', [SourceController::class, 'file'])->can('view', 'recordSet');
    Route::put('record-sets/{recordSet}/unit-names', [SourceController::class, 'names'])->can('change', 'recordSet');
    Route::put('record-sets/{recordSet}/retirement', [SourceController::class, 'retire'])->can('change', 'recordSet');
    Route::delete('record-sets/{recordSet}/retirement', [SourceController::class, 'bringBack'])->can('change', 'recordSet');
    Route::post('record-sets/{recordSet}/loads', [LoadController::class, 'store'])->can('load', 'recordSet');
    Route::get('record-sets/{recordSet}/way', [WayController::class, 'show'])->can('change', 'recordSet');
    Route::put('record-sets/{recordSet}/way', [WayController::class, 'update'])->can('change', 'recordSet');
    Route::post('record-sets/{recordSet}/asking', [WayController::class, 'ask'])->can('change', 'recordSet');
    Route::get('record-loads/{recordLoad}', [LoadController::class, 'show'])->can('handle', 'recordLoad');
    Route::post('record-loads/{recordLoad}/application', [LoadController::class, 'apply'])->can('handle', 'recordLoad');
    Route::delete('record-loads/{recordLoad}/application', [LoadController::class, 'undo'])->can('handle', 'recordLoad');

    Route::get('starters', [StarterController::class, 'index'])->can('define', Kpi::class);
    Route::post('starters', [StarterController::class, 'store'])->can('define', Kpi::class);
    Route::get('kpis', [KpiController::class, 'index'])->can('viewAny', Kpi::class);
    Route::get('kpis/{kpi}', [KpiController::class, 'show'])->can('view', 'kpi');
    Route::get('pairings', [KpiController::class, 'pairings'])->can('define', Kpi::class);
    Route::post('kpis', [KpiController::class, 'store'])->can('define', Kpi::class);
    Route::patch('kpis', [KpiController::class, 'bulk'])->can('defineAll', Kpi::class);
    Route::post('replay', [KpiController::class, 'replay'])->can('define', Kpi::class);
    Route::post('formula', [KpiController::class, 'formula'])->can('define', Kpi::class);
    Route::put('lists', [ListController::class, 'update'])->can('defineAll', Kpi::class);
    Route::post('targets/plan', [TargetController::class, 'plan'])->can('define', Kpi::class);
    Route::put('kpis/{kpi}', [KpiController::class, 'update'])->can('define', 'kpi');
    Route::delete('kpis/{kpi}', [KpiController::class, 'destroy'])->can('define', 'kpi');
});
