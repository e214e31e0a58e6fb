<?php

declare(strict_types=1);

namespace Tests\App\Docs;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** What the README, the guide and the other pages tell a reader to type, to open or to set is there. */
final class GuideTest extends TestCase
{
    private const ROOT = __DIR__ . '/../../..';

    /** @return array<string, string> by path */
    private static function pages(): array
    {
        $pages = [];
        foreach (
            [...glob(self::ROOT . '/*.md') ?: [], ...glob(self::ROOT . '/docs/*.md') ?: [], ...glob(self::ROOT . '/docs/*/*.md') ?: []]
            as $file
        ) {
            $pages[substr($file, strlen(self::ROOT) + 1)] = (string) file_get_contents($file);
        }

        return $pages;
    }

    /** @return list<string> what it prints, a line each; fails unless it ends with the status */
    private static function say(int $status, string ...$words): array
    {
        $process = new Process([self::ROOT . '/cartella', ...$words], timeout: 60);
        $process->run();
        self::assertSame($status, $process->getExitCode(), implode(' ', $words) . ': ' . $process->getErrorOutput());

        return explode("\n", $process->getOutput() . $process->getErrorOutput());
    }

    public function test_every_command_of_the_pages_is_one_that_the_program_knows(): void
    {
        $help = implode("\n", self::say(0, 'help'));
        self::say(2, 'launch');
        $bench = (string) file_get_contents(self::ROOT . '/scripts/bench.sh');
        $test = (string) file_get_contents(self::ROOT . '/scripts/test.sh');
        preg_match('/Benches: ([^"]+)\./', $bench, $benches);
        preg_match('/Suites: ([^"]+)\./', $test, $suites);
        $count = 0;
        foreach (self::pages() as $page => $text) {
            preg_match_all('#(?:^|[`\s(])(?:\./)?cartella ([a-z]+)(?: ([a-z]+))?(?=[\s`.,;:)\[]|$)#m', $text, $all, PREG_SET_ORDER);
            foreach ($all as $found) {
                // Only what stands as code is a command.
                if (!str_contains($found[0], './cartella') && !preg_match('/^(start|stop|status|backup|restore|help)$/', $found[1])) {
                    continue;
                }
                self::assertMatchesRegularExpression("/^  $found[1]\\b/m", $help, "$page: cartella $found[1]");
                $second = $found[2] ?? '';
                if ($found[1] === 'bench' && $second !== '') {
                    self::assertContains($second, explode(', ', $benches[1]), "$page: bench $second");
                }
                if ($found[1] === 'test' && $second !== '') {
                    self::assertContains($second, explode(', ', $suites[1]), "$page: test $second");
                }
                $count++;
            }
        }
        self::assertGreaterThan(40, $count, 'the pages are read');
    }

    public function test_every_command_refuses_what_it_does_not_know_without_doing_anything(): void
    {
        self::assertStringContainsString('there is no bench', implode(' ', self::say(1, 'bench', 'moon')));
        self::assertStringContainsString("start knows --empty and --share, not '--moon'", implode(' ', self::say(1, 'start', '--moon')));
        self::assertStringContainsString("how many workers, not by 'moon'", implode(' ', self::say(1, 'work', 'moon')));
        self::assertStringContainsString('backup knows', implode(' ', self::say(1, 'backup', '--moon')));
        self::assertStringContainsString('restore knows', implode(' ', self::say(1, 'restore', '--moon')));
        self::assertStringContainsString('--until needs a moment', implode(' ', self::say(1, 'restore', '.', '--until', 'the moon')));
    }

    public function test_every_file_that_a_page_names_or_leads_to_is_there(): void
    {
        $missing = [];
        foreach (self::pages() as $page => $text) {
            preg_match_all('#\]\((?!https?:|\#|mailto:)([^)\s\#]+)#', $text, $links);
            foreach ($links[1] as $link) {
                if (!file_exists(self::ROOT . '/' . dirname($page) . "/$link")) {
                    $missing[] = "$page leads to $link";
                }
            }
            preg_match_all('#`((?:app|core|ui|tests|scripts|docs|database|demo|standins|config|routes)/[\w./-]+)`#', $text, $names);
            foreach ($names[1] as $name) {
                $path = self::ROOT . '/' . rtrim($name, '/');
                if (!file_exists($path) && !file_exists("$path.php") && !file_exists("$path.ts") && !file_exists("$path.vue")) {
                    $missing[] = "$page names $name";
                }
            }
        }
        self::assertSame([], $missing);
    }

    public function test_every_setting_that_a_page_names_is_read_by_something(): void
    {
        $code = '';
        foreach (
            ['scripts/*.sh', 'scripts/*.php', 'config/*.php', 'app/Support/*.php', 'bootstrap/*.php', 'app/Providers/*.php']
            as $where
        ) {
            foreach (glob(self::ROOT . "/$where") ?: [] as $file) {
                $code .= (string) file_get_contents($file);
            }
        }
        $code .= (string) file_get_contents(self::ROOT . '/core/src/Media/Ffmpeg.php');
        $unknown = [];
        foreach (self::pages() + ['.env.example' => (string) file_get_contents(self::ROOT . '/.env.example')] as $page => $text) {
            preg_match_all('/\b((?:CARTELLA|S3|REDIS|DB_REPLICA|QUEUE|CACHE)_[A-Z0-9_]+)\b/', $text, $names);
            foreach (array_unique($names[1]) as $name) {
                if (!str_contains($code, $name)) {
                    $unknown[] = "$page: $name";
                }
            }
        }
        self::assertSame([], $unknown);
    }
}
