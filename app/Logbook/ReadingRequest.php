<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\NoteText;
use App\Http\CellRequest;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use Illuminate\Validation\Validator;
use InvalidArgumentException;
use OpenApi\Attributes as OA;

#[OA\Schema(
    schema: 'ReadingInput',
    required: ['typed', 'version'],
    properties: [
        new OA\Property(property: 'typed', description: 'the figure as typed, or the colour of a judged KPI; blank takes the reading back', type: 'string'),
        new OA\Property(property: 'version', description: 'the version that was seen; 0 when there was none', type: 'integer'),
        new OA\Property(property: 'parts', description: 'of which the figure is the sum, each as typed, by name; the sum is then not typed', type: 'object', nullable: true, additionalProperties: new OA\AdditionalProperties(type: 'string')),
        new OA\Property(property: 'note', ref: '#/components/schemas/NoteInput', description: 'the reason that a colour is given with', nullable: true),
    ],
)]
final class ReadingRequest extends CellRequest
{
    private CellValue $value;

    /** @var array<string, BigDecimal>|null */
    private ?array $parts = null;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'typed' => ['present', 'nullable', 'string', 'max:60'],
            'version' => ['required', 'integer', 'min:0'],
            'parts' => ['bail', 'nullable', 'array', 'max:100'],
            'parts.*' => ['bail', 'nullable', 'string', 'max:60'],
            'note' => ['nullable', 'array'],
            ...NoteRequest::parts('note.'),
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return NoteRequest::words('note.');
    }

    /** @return list<callable(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            if ($validator->errors()->isNotEmpty()) {
                return;
            }
            if ($this->input('parts') !== null) {
                $this->add($validator);

                return;
            }
            try {
                $this->value = (new CellText(new NumberSetting($this->person()->locale)))->read($this->facts()->measurement->definition, $this->string('typed')->toString(), false);
            } catch (InvalidArgumentException $error) {
                $validator->errors()->add('typed', $error->getMessage());
            }
        }];
    }

    public function value(): CellValue
    {
        return $this->value;
    }

    /** @return array<string, BigDecimal>|null by name; null where only the sum is known */
    public function typedParts(): ?array
    {
        return $this->parts;
    }

    private function add(Validator $validator): void
    {
        $text = new CellText(new NumberSetting($this->person()->locale));
        $this->parts = [];
        foreach ($this->array('parts') as $part => $typed) {
            if (! in_array((string) $part, $this->facts()->parts, true)) {
                $validator->errors()->add("parts.{$part}", "The KPI has no part '{$part}'.");

                continue;
            }
            try {
                $figure = $text->read($this->facts()->measurement->definition, is_string($typed) ? $typed : '', false)->figure;
            } catch (InvalidArgumentException $error) {
                $validator->errors()->add("parts.{$part}", $error->getMessage());

                continue;
            }
            if ($figure !== null) {
                $this->parts[(string) $part] = $figure;
            }
        }
        $this->value = new CellValue($this->parts === [] ? null : BigDecimal::sum(...array_values($this->parts))->stripTrailingZeros());
    }

    /** @return array{NoteText, int}|null what it says, and the version that was seen */
    public function note(): ?array
    {
        return $this->input('note') === null ? null : [NoteRequest::note($this, 'note.'), $this->integer('note.version')];
    }
}
