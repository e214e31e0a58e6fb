<?php

declare(strict_types=1);

namespace App\Domain\Bins;

use App\Models\Clip;
use Illuminate\Support\Facades\DB;

/** Where a clip is: the bins that hold it, itself or by its takes and subclips, and its files with their proof. */
final class ClipPlaces
{
    /** @return list<array{key: string, name: string, as: 'clip'|'take'|'subclip'}> people's own bins, by name */
    public function bins(Clip $clip): array
    {
        return DB::table('bin_items')
            ->join('bins', 'bins.id', '=', 'bin_items.bin_id')
            ->where(
                static fn($items) => $items
                    ->where('bin_items.clip_id', $clip->id)
                    ->orWhereIn('bin_items.subclip_id', DB::table('subclips')->where('clip_id', $clip->id)->select('id'))
                    ->orWhereIn('bin_items.take_id', DB::table('take_parts')->where('clip_id', $clip->id)->select('take_id')),
            )
            ->where('bins.production_id', $clip->production_id)
            ->groupBy('bins.id', 'bins.ulid', 'bins.name')
            ->orderBy('bins.name')
            ->selectRaw('bins.ulid, bins.name, MAX(bin_items.clip_id IS NOT NULL) AS itself, MAX(bin_items.take_id IS NOT NULL) AS of_take')
            ->get()
            ->map(
                static fn(object $bin): array => [
                    'key' => $bin->ulid,
                    'name' => $bin->name,
                    'as' => $bin->itself ? 'clip' : ($bin->of_take ? 'take' : 'subclip'),
                ],
            )
            ->all();
    }

    /**
     * Its files as the card was offloaded.
     *
     * @return list<array{path: string, size_bytes: int, algorithm: string|null, hash: string|null, copies: int, verified_at: string|null}>
     */
    public function files(Clip $clip): array
    {
        if ($clip->card_id === null) {
            return [];
        }
        $hashes = array_map(static fn(string $path): string => hash('xxh128', $path), $clip->paths());

        return DB::table('card_files')
            ->where('card_id', $clip->card_id)
            ->whereIn('path_hash', $hashes)
            ->orderBy('path')
            ->get(['path', 'size_bytes', 'algorithm', 'hash', 'copies', 'verified_at'])
            ->map(
                static fn(object $file): array => [
                    'path' => $file->path,
                    'size_bytes' => (int) $file->size_bytes,
                    'algorithm' => $file->algorithm,
                    'hash' => $file->hash,
                    'copies' => (int) $file->copies,
                    'verified_at' => $file->verified_at,
                ],
            )
            ->all();
    }
}
