<?php

declare(strict_types=1);

namespace App\Http\Handoff\Answers;

use App\Http\Bins\Answers\BinTreeAnswer;
use App\Http\ListOf;

/** The packages of a production, and the bins that can be handed off. */
final readonly class HandoffsAnswer
{
    /**
     * @param  list<HandoffAnswer>  $handoffs
     * @param  list<CutNameAnswer>  $cuts  reels and cuts of every day, the newest first
     * @param  'flat'|'day'|'scene'|'device'  $folders  as the last package had them
     */
    public function __construct(
        #[ListOf(HandoffAnswer::class)] public array $handoffs,
        public BinTreeAnswer $bins,
        #[ListOf(CutNameAnswer::class)] public array $cuts,
        public string $folders,
        public string $pattern,
    ) {}
}
