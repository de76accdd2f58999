<?php

declare(strict_types=1);

namespace App\Import;

use Illuminate\Foundation\Http\FormRequest;

/** A page of what an import says. */
final class ImportPageRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['outcome' => ['nullable', 'in:new,changed,same,refused'], 'page' => ['nullable', 'integer', 'min:1', 'max:10000']];
    }
}
