<?php

declare(strict_types=1);

namespace App\Review;

use Illuminate\Foundation\Http\FormRequest;

/** Words to look for. */
final class WordsRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['words' => ['required', 'string', 'min:2', 'max:100']];
    }
}
