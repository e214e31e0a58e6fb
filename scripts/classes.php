<?php

declare(strict_types=1);

// Prints the files of the classes that answers are made of, one a line: what the framework loads to begin with, and all of the
// application's requests, answers, rows and cuts. scripts/preload.php reads them once for all processes of the web server.

require __DIR__ . '/../vendor/autoload.php';
$app = require __DIR__ . '/../bootstrap/app.php';
$app->make(Illuminate\Contracts\Http\Kernel::class)->bootstrap();
$app->make('router')->getRoutes();
foreach (['db', 'session', 'auth', 'cache', 'cookie', 'encrypter', 'events', 'hash', 'validator', 'queue', 'view'] as $service) {
    $app->make($service);
}
$folders = [
    'App\\Http\\' => 'app/Http',
    'App\\Models\\' => 'app/Models',
    'App\\Policies\\' => 'app/Policies',
    'App\\Support\\' => 'app/Support',
    'App\\Domain\\' => 'app/Domain',
    'Cartella\\Core\\Cutting\\' => 'core/src/Cutting',
    'Cartella\\Core\\Time\\' => 'core/src/Time',
];
foreach ($folders as $space => $folder) {
    $root = dirname(__DIR__) . "/$folder/";
    foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator($root, FilesystemIterator::SKIP_DOTS)) as $file) {
        if ($file->getExtension() === 'php') {
            class_exists($space . str_replace('/', '\\', substr($file->getPathname(), strlen($root), -4)));
        }
    }
}
foreach (
    [
        Illuminate\Database\MariaDbConnection::class,
        Illuminate\Database\Connectors\MariaDbConnector::class,
        Illuminate\Database\Query\Builder::class,
        Illuminate\Database\Query\Grammars\MariaDbGrammar::class,
        Illuminate\Database\Query\Processors\MariaDbProcessor::class,
        Illuminate\Database\Eloquent\Builder::class,
        Illuminate\Database\Eloquent\Collection::class,
        Illuminate\Database\Eloquent\Relations\BelongsTo::class,
        Illuminate\Database\Eloquent\Relations\BelongsToMany::class,
        Illuminate\Database\Eloquent\Relations\HasMany::class,
        Illuminate\Database\Eloquent\Relations\HasOne::class,
        Illuminate\Database\Eloquent\Relations\HasManyThrough::class,
        Illuminate\Routing\Pipeline::class,
        Illuminate\Routing\ControllerDispatcher::class,
        Illuminate\Routing\ImplicitRouteBinding::class,
        Illuminate\Routing\Middleware\SubstituteBindings::class,
        Illuminate\Routing\Middleware\ThrottleRequests::class,
        Illuminate\Auth\Middleware\Authenticate::class,
        Illuminate\Auth\Middleware\Authorize::class,
        Illuminate\Auth\SessionGuard::class,
        Illuminate\Auth\EloquentUserProvider::class,
        Illuminate\Auth\Access\Gate::class,
        Illuminate\Auth\Access\Response::class,
        Illuminate\Cookie\Middleware\EncryptCookies::class,
        Illuminate\Cookie\Middleware\AddQueuedCookiesToResponse::class,
        Illuminate\Foundation\Http\Middleware\ValidateCsrfToken::class,
        Illuminate\View\Middleware\ShareErrorsFromSession::class,
        Illuminate\Validation\Validator::class,
        Illuminate\Validation\ValidationRuleParser::class,
        Illuminate\Http\JsonResponse::class,
        Carbon\Carbon::class,
        Carbon\CarbonImmutable::class,
    ]
    as $class
) {
    class_exists($class);
}
// Their parents are chosen while they are loaded, so that nothing can link them before.
$late = [Carbon\Translator::class, Carbon\MessageFormatter\MessageFormatterMapper::class, Carbon\CarbonPeriod::class];
$files = [];
foreach ([...get_declared_classes(), ...get_declared_interfaces(), ...get_declared_traits()] as $class) {
    $file = (new ReflectionClass($class))->getFileName();
    // The loader itself is there before anything is loaded by it.
    if (
        $file !== false &&
        !in_array($class, $late, true) &&
        !str_contains($file, '/vendor/composer/') &&
        preg_match('/\A[\w\\\\]+\z/', $class) === 1
    ) {
        $files[$file] = true;
    }
}
echo implode("\n", array_keys($files)), "\n";
