<?php

declare(strict_types=1);

namespace App\Http\Cards\Answers;

use App\Http\ListOf;

/** The cards of a day, what lies in the readers, and where copies go. */
final readonly class CardsStageAnswer
{
    /**
     * @param  list<VolumeAnswer>  $volumes
     * @param  list<CardAnswer>  $cards
     * @param  list<StoreAnswer>  $stores
     * @param  list<AwayCardAnswer>  $away
     */
    public function __construct(
        #[ListOf(VolumeAnswer::class)] public array $volumes,
        #[ListOf(CardAnswer::class)] public array $cards,
        #[ListOf(StoreAnswer::class)] public array $stores,
        #[ListOf(AwayCardAnswer::class)] public array $away,
        public ClipCheckAnswer $check,
        public string $template,
        public ?string $panel,
    ) {}
}
