<?php

declare(strict_types=1);

namespace App\Domain\Reports;

use App\Models\Card;
use App\Models\ShootDay;

/** The kinds of report, said by the domains that make them: what one is called, and its PDF. */
final class Reports
{
    /** @var array<string, array{title: callable(ShootDay, string|null): string, make: callable(ShootDay, ?Card, string|null): string}> */
    private array $kinds = [];

    /**
     * @param  callable(ShootDay, string|null): string  $title
     * @param  callable(ShootDay, ?Card, string|null): string  $make  gives the bytes of a PDF; the last is what the report is about
     *     beside a day and a card, such as the ULID of a reel
     */
    public function register(string $what, callable $title, callable $make): void
    {
        $this->kinds[$what] = ['title' => $title, 'make' => $make];
    }

    public function title(string $what, ShootDay $day, ?string $about = null): string
    {
        return $this->of($what)['title']($day, $about);
    }

    public function make(string $what, ShootDay $day, ?Card $card, ?string $about = null): string
    {
        return $this->of($what)['make']($day, $card, $about);
    }

    /** @return array{title: callable(ShootDay, string|null): string, make: callable(ShootDay, ?Card, string|null): string} */
    private function of(string $what): array
    {
        return $this->kinds[$what] ?? throw new \LogicException("No domain makes reports of kind $what.");
    }
}
