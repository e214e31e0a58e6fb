<?php

declare(strict_types=1);

namespace App\Http\Cards\Requests;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Validator;

/** A piece of a file, with its checksum as RFC 9530 writes it: `Content-Digest: sha-256=:BASE64:`. */
final class ImportPieceRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['from' => ['required', 'integer', 'min:0']];
    }

    public function withValidator(Validator $validator): void
    {
        $validator->after(function (Validator $found): void {
            if ($this->digest() === null) {
                $found->errors()->add('digest', 'The piece came without its checksum.');
            }
        });
    }

    /** @return string|null 32 bytes */
    public function digest(): ?string
    {
        preg_match('/\bsha-256=:([A-Za-z0-9+\/]{43}=):/', (string) $this->headers->get('Content-Digest'), $part);
        $bytes = base64_decode($part[1] ?? '', true);

        return is_string($bytes) && strlen($bytes) === 32 ? $bytes : null;
    }

    /** Any bytes; what form requests clean of other fields is not looked at. */
    public function validationData(): array
    {
        return ['from' => $this->query('from')];
    }
}
