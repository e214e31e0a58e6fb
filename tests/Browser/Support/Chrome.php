<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Symfony\Component\Process\Process;

/** Headless Chromium with a fresh profile under ChromeDriver, both of Debian; ended with {@see self::quit}. */
final class Chrome
{
    private const FLAGS = [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--autoplay-policy=no-user-gesture-required',
        '--disable-dev-shm-usage',
        '--hide-scrollbars',
        '--force-device-scale-factor=1',
        '--lang=en-GB',
    ];

    private function __construct(
        public readonly RemoteWebDriver $driver,
        private readonly Process $process,
        private readonly string $profile,
    ) {}

    public static function start(int $width = 1280, int $height = 800): self
    {
        $port = self::freePort();
        $process = new Process(['chromedriver', '--port=' . $port, '--allowed-ips=127.0.0.1', '--log-level=SEVERE'], timeout: null);
        $process->start();
        $end = microtime(true) + 20;
        while (@fsockopen('127.0.0.1', $port) === false) {
            if (microtime(true) > $end || !$process->isRunning()) {
                throw new \RuntimeException('ChromeDriver did not start: ' . $process->getErrorOutput());
            }
            usleep(50_000);
        }
        $profile = sys_get_temp_dir() . '/cartella-chrome-' . bin2hex(random_bytes(6));
        $options = new ChromeOptions();
        $options->addArguments([...self::FLAGS, "--window-size=$width,$height", '--user-data-dir=' . $profile]);
        $capabilities = DesiredCapabilities::chrome();
        $capabilities->setCapability(ChromeOptions::CAPABILITY, $options);
        $capabilities->setCapability('goog:loggingPrefs', ['browser' => 'ALL']);
        $driver = RemoteWebDriver::create('http://127.0.0.1:' . $port, $capabilities, 30_000, 1_200_000);
        $chrome = new self($driver, $process, $profile);
        $chrome->resize($width, $height);

        return $chrome;
    }

    /** The size of the page itself, whatever the window's frame takes. */
    public function resize(int $width, int $height): void
    {
        $this->driver->executeCustomCommand('/session/:sessionId/goog/cdp/execute', 'POST', [
            'cmd' => 'Emulation.setDeviceMetricsOverride',
            'params' => ['width' => $width, 'height' => $height, 'deviceScaleFactor' => 1, 'mobile' => false],
        ]);
    }

    /** Memory that belongs to the processes of its pages, bytes: decoded pictures lie there, outside the script's own. */
    public function rendererBytes(): int
    {
        $bytes = 0;
        foreach (glob('/proc/[0-9]*/cmdline') ?: [] as $file) {
            $command = (string) @file_get_contents($file);
            if (str_contains($command, '--type=renderer') && str_contains($command, $this->profile)) {
                $rollup = (string) @file_get_contents(dirname($file) . '/smaps_rollup');
                $bytes += preg_match('/^Pss:\s+(\d+) kB/m', $rollup, $part) === 1 ? 1024 * (int) $part[1] : 0;
            }
        }

        return $bytes;
    }

    public function quit(): void
    {
        try {
            $this->driver->quit();
        } finally {
            $this->process->stop(5);
            (new Process(['rm', '-rf', '--', $this->profile]))->run();
        }
    }

    private static function freePort(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        $name = (string) stream_socket_get_name($socket, false);
        fclose($socket);

        return (int) substr((string) strrchr($name, ':'), 1);
    }
}
