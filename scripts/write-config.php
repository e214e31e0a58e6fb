<?php

declare(strict_types=1);

// Writes the configuration of the services of one profile from config/services/*.conf, in which {{NAME}} stands
// for an environment variable that scripts/lib.sh exports.

$run = (string) getenv('RUN');
// Where media and packages come from beside this server: the store of a bucket, whose signed addresses browsers are sent to.
$store = in_array('s3', [getenv('CARTELLA_MEDIA'), getenv('CARTELLA_PACKAGES')], true) ? (string) getenv('S3_ENDPOINT') : '';
if ($store !== '' && preg_match('#^https?://[A-Za-z0-9.-]+(:\d{1,5})?(?=/|$)#', $store, $origin) !== 1) {
    throw new RuntimeException('S3_ENDPOINT is no address such as https://media.example:9000.');
}
$values = [
    'USER' => posix_getpwuid(posix_geteuid())['name'],
    'FPM_ROOT' => posix_geteuid() === 0 ? '--allow-to-run-as-root' : '--nodaemonize',
    // A master that is not root has nobody to become.
    'NGINX_USER' => posix_geteuid() === 0 ? 'user root;' : '',
    'TLS_LISTEN' => getenv('CARTELLA_SHARE') ? ' ssl' : '',
    'TLS' => getenv('CARTELLA_SHARE')
        ? sprintf(
            'ssl_certificate "%s"; ssl_certificate_key "%s"; ssl_protocols TLSv1.2 TLSv1.3; ssl_session_tickets ' .
                'off; error_page 497 https://$http_host$request_uri;',
            getenv('TLS_CERT'),
            getenv('TLS_KEY'),
        )
        : '',
    'HSTS' => getenv('CARTELLA_SHARE') ? 'add_header Strict-Transport-Security "max-age=31536000" always;' : '',
    // Six hundred files are not asked for their age every two seconds where nobody changes them under a desk that runs.
    'PHP_CHANGES' => getenv('CARTELLA_DEV') ? '1' : '0',
    // Every change of the rows, row by row, for a moment to be put back to and for another server to follow. A week of it stays.
    'DB_CHANGES' =>
        (string) getenv('CARTELLA_CHANGES') === ''
            ? '--skip-log-bin'
            : sprintf(
                '--log-bin="%s/changes" --log-bin-index="%1$s/changes.index" --binlog-format=ROW --sync-binlog=1 ' .
                    '--binlog-expire-logs-seconds=604800 --max-binlog-size=256M --server-id=1 ' .
                    // The desk's own account makes the tables' triggers.
                    '--log-bin-trust-function-creators=1',
                getenv('CARTELLA_CHANGES'),
            ),
    'MEDIA_FROM' => isset($origin[0]) ? " $origin[0]" : '',
    'CORES' => (string) max(2, (int) trim((string) shell_exec('nproc'))),
];
foreach (glob(getenv('CARTELLA_ROOT') . '/config/services/*.conf') ?: [] as $template) {
    $text = preg_replace_callback(
        '/\{\{([A-Z_]+)\}\}/',
        // A path that is left out would be another path: of all that lies on the disk, for instance.
        static function (array $match) use ($values, $template): string {
            $value = $values[$match[1]] ?? getenv($match[1]);

            return is_string($value)
                ? $value
                : throw new RuntimeException(sprintf('%s asks for %s, which nothing says.', basename($template), $match[1]));
        },
        (string) file_get_contents($template),
    );
    file_put_contents($run . '/' . basename($template), $text);
}
