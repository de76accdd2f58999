<?php

declare(strict_types=1);

namespace App\Import;

use Illuminate\Foundation\Http\FormRequest;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'HeadInput', required: ['sheet', 'line'], properties: [
    new OA\Property(property: 'sheet', description: 'blank where the file is one table', type: 'string'),
    new OA\Property(property: 'line', description: 'in which the columns are named; none for where they seem to be', type: 'integer', nullable: true),
])]
final class HeadRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['sheet' => ['nullable', 'string', 'max:120'], 'line' => ['nullable', 'integer', 'between:1,1100000']];
    }

    public function sheet(): string
    {
        return $this->string('sheet')->toString();
    }

    public function line(): ?int
    {
        return $this->input('line') === null ? null : $this->integer('line');
    }
}
