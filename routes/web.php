<?php

declare(strict_types=1);

use App\Http\Account\AccountController;
use App\Http\Assembly\AnglesController;
use App\Http\Assembly\AssemblyController;
use App\Http\Bins\BinsController;
use App\Http\Bins\ClipController;
use App\Http\Bins\RulesController;
use App\Http\Bins\SearchController;
use App\Http\Cards\AwayController;
use App\Http\Cards\CardReportsController;
use App\Http\Cards\CardsController;
use App\Http\Cards\ClipsController;
use App\Http\Cards\ImportsController;
use App\Http\Cards\VolumesController;
use App\Http\Day\DayController;
use App\Http\Handoff\ConnectionsController;
use App\Http\Handoff\HandoffController;
use App\Http\Handoff\PackageController;
use App\Http\Handoff\ReceivedController;
use App\Http\Lineup\CutController;
use App\Http\Lineup\LineupController;
use App\Http\Lineup\LooksController;
use App\Http\Lineup\PlacementController;
use App\Http\Lineup\RunsController;
use App\Http\Lineup\TakeSoundController;
use App\Http\Log\LogController;
use App\Http\Log\LogLineController;
use App\Http\Log\NamesController;
use App\Http\Log\NotesController;
use App\Http\Log\PatternsController;
use App\Http\Log\ScriptController;
use App\Http\Log\SheetColumnsController;
use App\Http\Log\SlatesController;
use App\Http\Middleware\Once;
use App\Http\Screening\GuestController;
use App\Http\Screening\LinksController;
use App\Http\Screening\NotesController as ScreeningNotesController;
use App\Http\Screening\ReelPapersController;
use App\Http\Screening\ScreeningController;
use App\Http\Sequences\ClipPlaylistController;
use App\Http\Sequences\CutsController;
use App\Http\Sequences\SequencesController;
use App\Http\Session\SessionController;
use App\Http\Settings\DaysController;
use App\Http\Settings\DevicesController;
use App\Http\Settings\FieldsController;
use App\Http\Settings\LibraryController;
use App\Http\Settings\PeopleController;
use App\Http\Settings\StoresController;
use App\Http\Shell\HealthController;
use App\Http\Shell\LiveController;
use App\Http\Shell\MediaController;
use App\Http\Shell\ProductionController;
use App\Http\Shell\TasksController;
use App\Http\Words\SpokenController;
use App\Http\Words\WordsController;
use App\Models\Production;
use Illuminate\Support\Facades\Route;

Route::prefix('api')->group(static function (): void {
    Route::get('session', [SessionController::class, 'show']);
    Route::post('session', [SessionController::class, 'store']);
    Route::delete('session', [SessionController::class, 'destroy'])->middleware('auth');

    // A person's own account: reached also by those who first have to change their password or set up a second factor.
    Route::prefix('account')
        ->middleware(['auth', 'throttle:account'])
        ->group(static function (): void {
            Route::put('password', [AccountController::class, 'password']);
            Route::post('second-factor', [AccountController::class, 'beginSecondFactor']);
            Route::put('second-factor', [AccountController::class, 'confirmSecondFactor']);
            Route::delete('second-factor', [AccountController::class, 'removeSecondFactor']);
            Route::put('keys', [AccountController::class, 'keys']);
            Route::put('panels', [AccountController::class, 'panels']);
            Route::get('sessions', [AccountController::class, 'sessions']);
            Route::delete('sessions/{session}', [AccountController::class, 'endSession'])->where('session', '[0-9a-f]{32}');
        });

    Route::post('productions', [ProductionController::class, 'store'])->middleware(['auth', 'ready', 'can:create,' . Production::class]);

    // Each group is one ability of ProductionPolicy; a child of another production is not found at all.
    Route::prefix('productions/{production}')
        ->middleware(['auth', 'ready', 'can:view,production'])
        ->scopeBindings()
        ->group(static function (): void {
            Route::get('/', [ProductionController::class, 'show']);
            Route::get('glance', [ProductionController::class, 'glance']);
            Route::get('live', [LiveController::class, 'stream']);
            Route::get('changes', [LiveController::class, 'poll']);
            Route::get('search', SearchController::class);
            Route::get('tasks', [TasksController::class, 'index']);
            Route::get('tasks/{task}', [TasksController::class, 'show']);
            Route::get('settings/devices', [DevicesController::class, 'devices']);
            Route::get('settings/stores', [StoresController::class, 'stores']);
            Route::get('settings/fields', [FieldsController::class, 'fields']);
            Route::get('days/{day}/tabs', [ProductionController::class, 'tabs']);
            Route::get('days/{day}/sheet', [DayController::class, 'show']);
            Route::get('days/{day}/daily-log.{format}', [DayController::class, 'log'])
                ->where('format', 'pdf|csv')
                ->middleware('throttle:heavy');
            Route::get('days/{day}/cards', [CardsController::class, 'index']);
            Route::get('cards/{card}', [CardsController::class, 'show']);
            Route::get('cards/{card}/report/{kind}.{format}', [CardReportsController::class, 'cardReport'])
                ->where(['kind' => 'camera|sound', 'format' => 'pdf|csv'])
                ->middleware('throttle:heavy');
            Route::get('days/{day}/report/{kind}.{format}', [CardReportsController::class, 'dayReport'])
                ->where(['kind' => 'camera|sound', 'format' => 'pdf|csv'])
                ->middleware('throttle:heavy');
            Route::get('days/{day}/log', [LogController::class, 'show']);
            Route::get('days/{day}/takes', [LogController::class, 'takes']);
            Route::get('days/{day}/scenes', [LogController::class, 'scenes']);
            Route::post('days/{day}/log/here', [LogController::class, 'here'])->middleware('throttle:presence');
            Route::get('log-columns', [SheetColumnsController::class, 'columns']);
            Route::put('log-columns', [SheetColumnsController::class, 'setColumns']);
            Route::get('takes/{take}/history', [LogController::class, 'history']);
            Route::get('takes/{take}/markers', [LogController::class, 'markers']);
            Route::get('days/{day}/lineup', [LineupController::class, 'show']);
            Route::get('days/{day}/lineup/runs', [RunsController::class, 'runs']);
            Route::get('lineup-runs/{lineupRun}', [RunsController::class, 'compare']);
            Route::get('clips/{clip}/check', [PlacementController::class, 'check']);
            Route::get('looks', [LooksController::class, 'index']);
            Route::get('clips/{clip}/points', [PlacementController::class, 'points'])->middleware('throttle:heavy');
            Route::get('clips/{clip}/pair', [PlacementController::class, 'pair'])->middleware('throttle:pair');
            Route::get('bins', [BinsController::class, 'index']);
            Route::get('bins/counts', [BinsController::class, 'counts']);
            Route::get('bins/subjects', [RulesController::class, 'subjects']);
            Route::get('bins/{key}/items', [BinsController::class, 'items'])->where('key', '.{1,80}');
            Route::get('bins/{key}/refs', [BinsController::class, 'refs'])->where('key', '.{1,80}');
            Route::put('bins/{key}/arrangement', [BinsController::class, 'arrange'])->where('key', '.{1,80}');
            Route::get('clips/{clip}', [ClipController::class, 'show']);
            Route::get('clips/{clip}/media/{what}', [MediaController::class, 'show'])->where('what', '[a-z0-9-]{1,12}');
            Route::put('clips/{clip}/marks', [ClipController::class, 'marks']);
            Route::get('days/{day}/reels', [ScreeningController::class, 'index']);
            Route::get('reels/{reel}', [ScreeningController::class, 'show']);
            Route::get('reels/{reel}/summary', [ReelPapersController::class, 'summary']);
            Route::get('reels/{reel}/notes.{format}', [ReelPapersController::class, 'notes'])
                ->where('format', 'pdf|csv')
                ->middleware('throttle:heavy');
            Route::get('sequences/{sequence}/exports', [ReelPapersController::class, 'exports']);
            Route::get('sequences/{sequence}/exports/{export}/{part}', [ReelPapersController::class, 'file'])->where([
                'export' => '[0-9A-Za-z]{26}',
                'part' => 'picture|sound|track-[1-9]\d?',
            ]);
            Route::get('scenes/{name}', [ScreeningController::class, 'scene'])->where('name', '[^/]{1,40}');
            Route::get('sequences/{sequence}', [SequencesController::class, 'show']);
            Route::get('sequences/{sequence}/playlist', [SequencesController::class, 'playlist']);
            Route::get('sequences/{sequence}/steps', [SequencesController::class, 'steps']);
            Route::get('sequences/{sequence}/history', [SequencesController::class, 'history']);
            Route::get('sequences/{sequence}/sources', [AssemblyController::class, 'sources']);
            Route::get('sequences/{sequence}/beneath', [AssemblyController::class, 'beneath']);
            Route::get('sequences/{sequence}/wall', [AnglesController::class, 'wall']);
            Route::get('sequences/{sequence}/versions/{version}/since', [SequencesController::class, 'sinceVersion']);
            Route::get('sequences/{sequence}/versions/{version}/playlist', [SequencesController::class, 'versionPlaylist']);
            Route::get('track-plan', [AssemblyController::class, 'plan']);
            Route::get('days/{day}/events', [AnglesController::class, 'index']);
            Route::get('clips/{clip}/playlist', [ClipPlaylistController::class, 'show']);
            Route::get('clips/{clip}/words', [WordsController::class, 'show']);
            Route::get('clips/{clip}/words.{cues}', [WordsController::class, 'file'])->where('cues', 'txt|srt|vtt');
            Route::get('takes/{take}/words.{cues}', [WordsController::class, 'takeFile'])->where('cues', 'txt|srt|vtt');
            Route::get('bins/{key}/words.{cues}', [WordsController::class, 'binFile'])
                ->where(['key' => '.{1,80}', 'cues' => 'txt|srt|vtt'])
                ->middleware('throttle:heavy');
            Route::get('clips/{clip}/pauses', [WordsController::class, 'pauses']);
            Route::get('clips/{clip}/words/history', [WordsController::class, 'history']);
            Route::get('clips/{clip}/words/around', [WordsController::class, 'around']);
            Route::get('cuts', [CutsController::class, 'index']);
            Route::get('spoken', [SpokenController::class, 'search']);
            Route::get('script-reads', [SpokenController::class, 'script']);
            Route::get('days/{day}/line-sums', [SpokenController::class, 'sums']);
            Route::get('clips/{clip}/uses', [SequencesController::class, 'uses']);
            Route::get('handoffs', [HandoffController::class, 'index']);
            Route::get('handoffs/{handoff}', [PackageController::class, 'show']);
            Route::get('handoffs/{handoff}/file', [PackageController::class, 'file']);
            Route::get('handoffs/{handoff}/list', [PackageController::class, 'open'])->middleware('throttle:heavy');
            Route::get('received', [ReceivedController::class, 'index']);
            Route::get('received/{sequence}', [ReceivedController::class, 'show']);
            Route::get('sequences/{sequence}/compare', [ReceivedController::class, 'compare'])->middleware('throttle:heavy');

            Route::middleware('can:review,production')->group(static function (): void {
                Route::post('undo', [ProductionController::class, 'undo']);
                Route::post('redo', [ProductionController::class, 'redo']);
                Route::put('takes/{take}/circle', [LogController::class, 'circle']);
                Route::post('takes/{take}/notes', [ScreeningNotesController::class, 'add']);
                Route::patch('takes/{take}/notes/{screeningNote}', [ScreeningNotesController::class, 'change']);
                Route::delete('takes/{take}/notes/{screeningNote}', [ScreeningNotesController::class, 'remove']);
                Route::put('takes/{take}/stars', [ScreeningNotesController::class, 'rate']);
                Route::post('reels/{reel}/build', [ScreeningController::class, 'again']);
            });

            Route::middleware('can:organise,production')->group(static function (): void {
                Route::post('library/{shared}', [ClipController::class, 'fromLibrary'])->where('shared', '[0-9A-Za-z]{26}');
                Route::post('bins', [BinsController::class, 'store']);
                Route::post('bins/look', [RulesController::class, 'look']);
                Route::put('bins/groups', [BinsController::class, 'groups']);
                Route::patch('bins/{bin}', [BinsController::class, 'update']);
                Route::put('bins/{bin}/place', [BinsController::class, 'place']);
                Route::post('bins/{bin}/freeze', [BinsController::class, 'freeze']);
                Route::delete('bins/{bin}', [BinsController::class, 'destroy']);
                Route::post('bins/{bin}/items', [BinsController::class, 'put']);
                Route::delete('bins/{bin}/items', [BinsController::class, 'takeOut']);
                Route::post('clips/{clip}/subclips', [ClipController::class, 'addSubclip']);
                Route::post('channels', [ClipController::class, 'splitChannels']);
                Route::patch('clips/{clip}/subclips/{subclip}', [ClipController::class, 'changeSubclip']);
                Route::delete('clips/{clip}/subclips/{subclip}', [ClipController::class, 'removeSubclip']);
                Route::post('clips/{clip}/markers', [ClipController::class, 'addMarker']);
                Route::patch('clips/{clip}/markers/{marker}', [ClipController::class, 'nameMarker']);
                Route::delete('clips/{clip}/markers/{marker}', [ClipController::class, 'removeMarker']);
                Route::post('days/{day}/words', [WordsController::class, 'find']);
                Route::post('clips/{clip}/words', [WordsController::class, 'bring'])->middleware('throttle:heavy');
                Route::patch('clips/{clip}/passages/{passage}', [WordsController::class, 'correct']);
                Route::post('clips/{clip}/passages/{passage}/split', [WordsController::class, 'split']);
                Route::post('clips/{clip}/passages/{passage}/merge', [WordsController::class, 'merge']);
                Route::put('clips/{clip}/passages/{passage}/speaker', [WordsController::class, 'speaker']);
                Route::post('cuts', [CutsController::class, 'store']);
                Route::post('cuts/{sequence}/pieces', [CutsController::class, 'add']);
                Route::patch('cuts/{sequence}', [SequencesController::class, 'rename']);
                Route::post('string-outs', [AssemblyController::class, 'stringOut'])->middleware('throttle:heavy');
                Route::put('track-plan', [AssemblyController::class, 'setPlan']);
                Route::post('days/{day}/angle-cuts', [AnglesController::class, 'store']);
                Route::post('sequences/{sequence}/turn', [AnglesController::class, 'turn']);
                Route::post('sequences/{sequence}/lay', [AnglesController::class, 'lay']);
                Route::post('days/{day}/reels', [ScreeningController::class, 'store']);
                Route::post('days/{day}/reels/look', [ScreeningController::class, 'look']);
                Route::patch('reels/{reel}', [ScreeningController::class, 'name']);
                Route::put('reels/{reel}/takes', [ScreeningController::class, 'arrange']);
                Route::delete('reels/{reel}', [ScreeningController::class, 'destroy']);
                Route::post('sequences/{sequence}/exports', [ReelPapersController::class, 'export']);
                Route::delete('sequences/{sequence}/exports/{export}', [ReelPapersController::class, 'cancel'])->where(
                    'export',
                    '[0-9A-Za-z]{26}',
                );
                Route::get('reels/{reel}/links', [LinksController::class, 'index']);
                Route::post('reels/{reel}/links', [LinksController::class, 'store']);
                Route::delete('reels/{reel}/links/{link}', [LinksController::class, 'destroy']);
                Route::put('reels/{reel}/room', [LinksController::class, 'tell'])->middleware('throttle:room');
                Route::delete('reels/{reel}/room', [LinksController::class, 'close']);
                Route::post('sequences/{sequence}/edit', [SequencesController::class, 'edit']);
                Route::delete('sequences/{sequence}', [SequencesController::class, 'destroy']);
                Route::post('sequences/{sequence}/versions', [SequencesController::class, 'keep']);
                Route::post('sequences/{sequence}/versions/{version}', [SequencesController::class, 'goBack']);
            });

            Route::middleware('can:work,production')->group(static function (): void {
                Route::post('days', [DaysController::class, 'addDay']);
                Route::patch('days/{day}', [DaysController::class, 'changeDay']);
                Route::delete('days/{day}', [DaysController::class, 'removeDay']);
                Route::post('settings/fields', [FieldsController::class, 'addField']);
                Route::patch('settings/fields/{productionField}', [FieldsController::class, 'changeField']);
                Route::post('settings/devices', [DevicesController::class, 'addDevice']);
                Route::patch('settings/devices/{device}', [DevicesController::class, 'changeDevice']);
                Route::post('tasks/{task}/cancel', [TasksController::class, 'cancel']);
                Route::post('tasks/{task}/again', [TasksController::class, 'again']);
                Route::post('days/{day}/offload-all', [VolumesController::class, 'offloadAll']);
                Route::post('volumes/{volume}/claim', [VolumesController::class, 'claim'])->where('volume', '[^/]{1,255}');
                Route::delete('volumes/{volume}/claim', [VolumesController::class, 'giveBack'])->where('volume', '[^/]{1,255}');
                Route::get('imports', [ImportsController::class, 'index']);
                Route::post('imports/look', [ImportsController::class, 'look']);
                Route::post('days/{day}/imports', [ImportsController::class, 'begin']);
                Route::put('imports/{upload}/files/{number}', [ImportsController::class, 'piece'])
                    ->whereNumber('number')
                    ->middleware('throttle:pieces');
                Route::post('imports/{upload}/copy', [ImportsController::class, 'finish']);
                Route::delete('imports/{upload}', [ImportsController::class, 'drop']);
                Route::post('clips/{clip}/media', [ClipsController::class, 'remake']);
                Route::post('days/{day}/points', [DayController::class, 'fix']);
                Route::get('days/{day}/volumes/{volume}', [VolumesController::class, 'volume'])->where('volume', '[^/]{1,255}');
                Route::post('days/{day}/volumes/{volume}/offload', [VolumesController::class, 'offload'])->where('volume', '[^/]{1,255}');
                Route::get('days/{day}/place', [VolumesController::class, 'place']);
                Route::put('card-template', [VolumesController::class, 'template']);
                Route::put('cards/{card}/device', [CardsController::class, 'cardDevice']);
                Route::post('clips/{clip}/clock', [ClipsController::class, 'clock']);
                Route::post('cards/{card}/release', [CardsController::class, 'release']);
                Route::get('cards/{card}/dependents', [AwayController::class, 'ofCard']);
                Route::post('cards/{card}/away', [AwayController::class, 'card']);
                Route::post('cards/{card}/back', [AwayController::class, 'back']);
                Route::put('colours', [ClipController::class, 'colours']);
                Route::post('dependents', [AwayController::class, 'ofClips']);
                Route::post('away', [AwayController::class, 'clips']);
                Route::post('cards/{card}/verify', [CardsController::class, 'verify']);
                Route::post('device', [ClipsController::class, 'device']);
                Route::get('days/{day}/log/read', [SlatesController::class, 'preview']);
                Route::post('days/{day}/log/read', [SlatesController::class, 'read']);
                Route::post('days/{day}/log/read/try', [PatternsController::class, 'tryPatterns']);
                Route::put('patterns/{which}', [PatternsController::class, 'setPatterns'])->where('which', 'slate|name');
                Route::get('patterns/name', [PatternsController::class, 'namePatterns']);
                Route::post('names/preview', [NamesController::class, 'previewNames']);
                Route::post('names', [NamesController::class, 'giveNames']);
                Route::patch('days/{day}/takes', [LogController::class, 'editMany'])->middleware(Once::class);
                Route::get('days/{day}/log/line', [LogLineController::class, 'line']);
                Route::post('days/{day}/log/line', [LogLineController::class, 'type']);
                Route::post('takes/{take}/settle', [LogController::class, 'settle']);
                Route::post('days/{day}/notes', [NotesController::class, 'store']);
                Route::get('notes/{noteFile}', [NotesController::class, 'show']);
                Route::post('notes/{noteFile}/preview', [NotesController::class, 'preview']);
                Route::post('notes/{noteFile}/sheet', [NotesController::class, 'sheet']);
                Route::get('notes/{noteFile}/faults', [NotesController::class, 'faults']);
                Route::get('notes/{noteFile}/faults.csv', [NotesController::class, 'faultsFile']);
                Route::post('notes/{noteFile}/apply', [NotesController::class, 'apply']);
                Route::post('script', [ScriptController::class, 'script']);
                Route::patch('takes/{take}', [LogController::class, 'edit']);
                Route::post('days/{day}/log/slate', [SlatesController::class, 'slate'])->middleware(Once::class);
                Route::post('days/{day}/lineup', [LineupController::class, 'start']);
                Route::post('clips/{clip}/nudge', [PlacementController::class, 'nudge']);
                Route::post('clips/{clip}/lock', [PlacementController::class, 'lock']);
                Route::post('clips/{clip}/place', [PlacementController::class, 'place']);
                Route::post('clips/{clip}/second', [PlacementController::class, 'second']);
                Route::post('clips/{clip}/leave-out', [PlacementController::class, 'leaveOut']);
                Route::post('lineup-runs/{lineupRun}/back', [RunsController::class, 'goBack']);
                Route::post('clips/{clip}/drift', [PlacementController::class, 'drift']);
                Route::post('clips/{clip}/wild', [PlacementController::class, 'wild']);
                Route::post('looks', [LooksController::class, 'store']);
                Route::put('looks', [LooksController::class, 'assign']);
                Route::patch('looks/{look}', [LooksController::class, 'update']);
                Route::put('takes/{take}/sound', [TakeSoundController::class, 'sound']);
                Route::put('clips/{clip}/head', [TakeSoundController::class, 'head']);
                Route::put('days/{day}/heads', [TakeSoundController::class, 'heads']);
                Route::put('lanes', [LineupController::class, 'lanes']);
                Route::get('days/{day}/cut', [CutController::class, 'cutPlan']);
                Route::get('clips/{clip}/split', [CutController::class, 'splitPlan']);
                Route::post('clips/{clip}/split', [CutController::class, 'split']);
                Route::post('days/{day}/cut', [CutController::class, 'cut']);
                Route::post('days/{day}/clock', [LineupController::class, 'applyClock']);
                Route::post('handoffs', [HandoffController::class, 'store']);
                Route::post('handoffs/plan', [HandoffController::class, 'plan']);
                Route::put('handoffs/{handoff}/questions/{question}', [PackageController::class, 'answer']);
                Route::post('received', [ReceivedController::class, 'store'])->middleware('throttle:heavy');
                Route::post('received/{sequence}/links', [ReceivedController::class, 'link']);
                Route::post('received/{sequence}/links/others', [ReceivedController::class, 'others']);
                Route::post('sequences/{sequence}/pull', [ReceivedController::class, 'pull']);
                Route::post('received/{sequence}/again', [ReceivedController::class, 'again']);
            });

            Route::prefix('settings')
                ->middleware('can:manage,production')
                ->group(static function (): void {
                    Route::get('people', [PeopleController::class, 'index']);
                    Route::post('people', [PeopleController::class, 'store']);
                    Route::patch('people/{user}', [PeopleController::class, 'update']);
                    Route::delete('people/{user}', [PeopleController::class, 'destroy']);
                    Route::post('people/{user}/password', [PeopleController::class, 'password']);
                    Route::delete('people/{user}/second-factor', [PeopleController::class, 'removeSecondFactor']);
                    Route::delete('people/{user}/sessions', [PeopleController::class, 'endSessions']);
                    Route::get('audit', [PeopleController::class, 'audit']);
                    Route::put('library', [LibraryController::class, 'share']);
                    Route::put('words-service', [WordsController::class, 'setService']);
                    Route::get('connections', [ConnectionsController::class, 'index']);
                    Route::post('hooks', [ConnectionsController::class, 'addHook']);
                    Route::delete('hooks/{webHook}', [ConnectionsController::class, 'removeHook']);
                    Route::post('tokens', [ConnectionsController::class, 'addToken']);
                    Route::delete('tokens/{apiToken}', [ConnectionsController::class, 'revokeToken']);
                    Route::post('stores', [StoresController::class, 'addStore']);
                    Route::patch('stores/{store}', [StoresController::class, 'changeStore']);
                });

            Route::middleware('can:accept,production')->group(static function (): void {
                Route::post('handoffs/{handoff}/accept', [PackageController::class, 'accept']);
                Route::delete('handoffs/{handoff}/accept', [PackageController::class, 'takeBack']);
                Route::post('handoffs/{handoff}/questions', [PackageController::class, 'ask']);
            });
        });
    // Whoever has a link watches one reel, and learns nothing else.
    Route::get('clock', [GuestController::class, 'clock'])->middleware('throttle:room');
    Route::prefix('watch/{secret}')
        ->where(['secret' => '[A-Za-z0-9_-]{20,60}'])
        ->middleware('throttle:watch')
        ->group(static function (): void {
            Route::get('/', [GuestController::class, 'show']);
            Route::post('open', [GuestController::class, 'open'])->middleware('throttle:account');
            Route::get('reel', [GuestController::class, 'reel']);
            Route::get('playlist', [GuestController::class, 'playlist']);
            Route::get('room', [GuestController::class, 'room']);
            Route::get('live', [GuestController::class, 'live']);
            Route::get('clips/{clip}/media/{what}', [GuestController::class, 'media'])->where([
                'clip' => '[0-9A-Za-z]{26}',
                'what' => '[a-z0-9-]{1,12}',
            ]);
        });
    Route::any('{any}', static fn() => abort(404))->where('any', '.*');
});

Route::get('health', [HealthController::class, 'show'])
    ->withoutMiddleware(['web'])
    ->middleware('throttle:health');

Route::view('{any?}', 'app')->where('any', '.*');
