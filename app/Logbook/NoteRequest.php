<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\NoteText;
use App\Http\CellRequest;
use Illuminate\Foundation\Http\FormRequest;
use OpenApi\Attributes as OA;

#[OA\Schema(
    schema: 'NoteInput',
    description: 'All three blank remove the note.',
    required: ['text', 'outlook', 'doing', 'version'],
    properties: [
        new OA\Property(property: 'text', description: 'the reason', type: 'string', maxLength: 2000),
        new OA\Property(property: 'outlook', description: 'when it will be back, and where it is heading', type: 'string', maxLength: 2000),
        new OA\Property(property: 'doing', description: 'what is being done', type: 'string', maxLength: 2000),
        new OA\Property(property: 'version', description: 'the version that was seen; 0 when there was none', type: 'integer'),
    ],
)]
final class NoteRequest extends CellRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [...self::parts(''), 'version' => ['required', 'integer', 'min:0']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return self::words('');
    }

    /** @return array<string, list<string>> */
    public static function parts(string $prefix): array
    {
        return [
            "{$prefix}text" => ['nullable', 'string', 'max:2000'],
            "{$prefix}outlook" => ['nullable', 'string', 'max:2000'],
            "{$prefix}doing" => ['nullable', 'string', 'max:2000'],
        ];
    }

    /** @return array<string, string> */
    public static function words(string $prefix): array
    {
        return array_fill_keys(["{$prefix}text.max", "{$prefix}outlook.max", "{$prefix}doing.max"], 'Each part of a note holds up to 2,000 characters.');
    }

    public static function note(FormRequest $request, string $prefix): NoteText
    {
        return new NoteText(
            $request->string("{$prefix}text")->trim()->toString(),
            $request->string("{$prefix}outlook")->trim()->toString(),
            $request->string("{$prefix}doing")->trim()->toString(),
        );
    }
}
