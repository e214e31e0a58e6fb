<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

/** Looks at a page for whoever hears it, or sees little of it. */
trait Reach
{
    /** @return list<string> what keeps somebody out of the page as it is: rule, element and why; serious and worse */
    private function found(): array
    {
        if ($this->js('return typeof window.axe') !== 'object') {
            $this->js((string) file_get_contents(__DIR__ . '/../../../node_modules/axe-core/axe.min.js'));
        }

        return $this->jsAsync(
            <<<'JS'
            const done = arguments[arguments.length - 1]
            axe
              .run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'], resultTypes: ['violations'] })
              .then(({ violations }) =>
                done(
                  violations
                    .filter((one) => ['serious', 'critical'].includes(one.impact))
                    .flatMap(({ id, nodes }) =>
                      nodes.slice(0, 4).map((node) => `${id}: ${node.html.slice(0, 160)} | ${node.failureSummary.slice(0, 260)}`),
                    ),
                ),
              )
              .catch((trouble) => done([String(trouble)]))
            JS
            ,
            60,
        );
    }

    /** Windows in which everything has to be got at: 1280 at twice the size, the least one, a tablet held upright, and the largest. */
    private const WINDOWS = [[640, 400], [1024, 768], [820, 1180], [3840, 2160]];

    private function fits(string $page): void
    {
        $look = (string) file_get_contents(__DIR__ . '/js/fits.js');
        try {
            foreach (self::WINDOWS as [$width, $height]) {
                $this->chrome()->resize($width, $height);
                // A page lays itself out anew when it has heard of it.
                for ($beyond = null, $end = microtime(true) + 4; $beyond !== [] && microtime(true) < $end; usleep(50_000)) {
                    $beyond = $this->js($look);
                }
                self::assertSame([], $beyond, "$page at $width x $height");
            }
        } finally {
            $this->chrome()->resize(1280, 800);
        }
    }

    private function reach(string $page): void
    {
        // A dialog that was closed waits for its next answer, and nobody sees that.
        $this->until(
            fn(): bool => $this->js('return [...document.querySelectorAll(".bones")].every((one) => one.getClientRects().length === 0)'),
            "$page is still fetched",
        );
        // What comes with a movement is measured when it is there.
        $this->until(
            fn(): bool => $this->js(
                'return document.getAnimations().every((one) => one.playState !== "running" || ' .
                    'one.effect.getTiming().iterations === Infinity)',
            ),
            "$page moves on and on",
        );
        self::assertSame([], $this->found(), $page);
    }
}
