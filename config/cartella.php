<?php

declare(strict_types=1);

$var = env('CARTELLA_VAR', base_path('var'));

return [
    'var' => $var,

    // The address that the web server listens on.
    'web_host' => env('WEB_HOST', '127.0.0.1'),

    // Where cards appear: the stand-in bench puts folders here; on a cart it is the folder that volumes are mounted in.
    'bench' => env('CARTELLA_BENCH', $var . '/volumes'),

    // The cards that the stand-in bench can insert.
    'card_library' => env('CARTELLA_CARD_LIBRARY', base_path('var/demo/cards')),

    // The page that inserts simulated cards; none where there are real readers.
    'card_panel' => env('CARTELLA_CARD_PANEL'),

    'logs' => env('LOGS', $var . '/logs'),

    // Where the database keeps its files, and what is always left free there, bytes: work that fills disks waits below it.
    'database' => env('CARTELLA_DB', $var . '/db'),
    'floor_bytes' => (int) env('CARTELLA_FLOOR_BYTES', 1_000_000_000),

    // The first volumes of a new production; its admin changes them afterwards.
    'stores' => [
        'shuttle-1' => ['name' => 'Shuttle 1', 'path' => env('CARTELLA_STORE_1', $var . '/stores/shuttle-1')],
        'nearline' => ['name' => 'Nearline', 'path' => env('CARTELLA_STORE_2', $var . '/stores/nearline')],
    ],

    // The stand-in service that finds words, for the demo production; none where there is a real one.
    'words_standin' => env('CARTELLA_TRANSCRIPTION'),

    // Folders that hold a folder for each language that can be recognised: Debian's, and the desk's own.
    'speech_models' => array_values(array_filter(['/usr/share/pocketsphinx/model', $var . '/speech', env('CARTELLA_SPEECH')])),

    // What carries the news of a production to its open pages: `database`, or `redis` where several machines share one.
    'live' => env('CARTELLA_LIVE', 'database'),

    // Proxies, pictures, peaks and guide sound, by clip.
    'proxies' => $var . '/proxies',

    // Work in progress of media that are kept elsewhere than on this machine.
    'scratch' => env('CARTELLA_SCRATCH', $var . '/scratch'),

    // Files that are being dropped on a page.
    'uploads' => env('CARTELLA_UPLOADS', $var . '/uploads'),

    // The editing team's shared drive.
    'inbox' => env('CARTELLA_INBOX', $var . '/inbox'),

    // nginx answers these by X-Accel-Redirect: path below the proxies, and nothing else.
    'accel' => '/protected/',

    // The same for reels that were written as files: path below the exports.
    'accel_exports' => '/exported/',

    // The same for packages: path below the inbox.
    'accel_inbox' => '/delivered/',
];
