<?php

declare(strict_types=1);

namespace App\Http\Bins\Requests;

use App\Domain\Bins\BinTree;
use Illuminate\Foundation\Http\FormRequest;

/** The groups that the tree shows. */
final class BinGroupsRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'groups' => ['present', 'array', 'list'],
            'groups.*' => ['string', 'distinct', 'in:' . implode(',', array_keys(BinTree::GROUPS))],
        ];
    }
}
