<?php

declare(strict_types=1);

namespace App\Http\Handoff\Requests;

use Illuminate\Foundation\Http\FormRequest;

/** What is answered to a question; null takes the answer back. */
final class AnswerQuestionRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['answer' => ['present', 'nullable', 'string', 'max:1000']];
    }
}
