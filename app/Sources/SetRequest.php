<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\RecordSet;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use Kybernet\Core\Records\FieldType;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'RecordSetInput', required: ['code', 'name', 'noun', 'unit', 'key', 'fields', 'unitField', 'coversFrom', 'coversTo', 'coversByLoads', 'mode', 'owners', 'version'], properties: [
    new OA\Property(property: 'code', type: 'string', maxLength: 64),
    new OA\Property(property: 'name', type: 'string', maxLength: 120),
    new OA\Property(property: 'noun', description: 'what one calls several of its records: jobs', type: 'string', maxLength: 40),
    new OA\Property(property: 'unit', description: 'code of the unit whose records they are', type: 'string'),
    new OA\Property(property: 'key', description: 'the field that tells records apart', type: 'string'),
    new OA\Property(property: 'fields', type: 'array', items: new OA\Items(required: ['name', 'was', 'type', 'expression', 'meaning', 'sensitive', 'column', 'form'], properties: [
        new OA\Property(property: 'name', type: 'string', maxLength: 64),
        new OA\Property(property: 'was', description: 'what it was called before; null where it is new', type: 'string', nullable: true),
        new OA\Property(property: 'type', type: 'string', enum: FieldType::class, nullable: true),
        new OA\Property(property: 'expression', type: 'string', nullable: true, maxLength: 2000),
        new OA\Property(property: 'meaning', type: 'string', maxLength: 300),
        new OA\Property(property: 'sensitive', type: 'boolean'),
        new OA\Property(property: 'column', type: 'string', nullable: true, maxLength: 200),
        new OA\Property(property: 'form', type: 'string', enum: ['', 'day-first', 'month-first', 'comma']),
    ])),
    new OA\Property(property: 'unitField', type: 'string', nullable: true),
    new OA\Property(property: 'unitNames', description: 'codes of units by other names', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string')),
    new OA\Property(property: 'coversFrom', type: 'string', nullable: true),
    new OA\Property(property: 'coversTo', type: 'string', nullable: true),
    new OA\Property(property: 'coversByLoads', type: 'boolean'),
    new OA\Property(property: 'mode', type: 'string', enum: ['add', 'key', 'all']),
    new OA\Property(property: 'owners', type: 'array', items: new OA\Items(type: 'integer')),
    new OA\Property(property: 'upload', description: 'the file that it is made from, which is brought in with it', type: 'string', nullable: true),
    new OA\Property(property: 'file', description: 'what that file is called', type: 'string', nullable: true),
    new OA\Property(property: 'version', type: 'integer'),
])]
final class SetRequest extends FormRequest
{
    /** A table has only so many columns. */
    private const MOST_FIELDS = 200;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'code' => ['bail', 'required', 'string', 'max:64', 'regex:/\A[A-Za-z][A-Za-z0-9_.-]*\z/'],
            'name' => ['bail', 'required', 'string', 'max:120'],
            'noun' => ['bail', 'required', 'string', 'max:40'],
            'unit' => ['bail', 'required', 'string', Rule::exists('units', 'code')],
            'key' => ['bail', 'required', 'string', 'max:64'],
            'fields' => ['bail', 'required', 'array', 'min:1', 'max:'.self::MOST_FIELDS],
            'fields.*' => ['array'],
            'fields.*.name' => ['bail', 'required', 'string', 'max:64', 'regex:/\A[A-Za-z][A-Za-z0-9_]*\z/'],
            'fields.*.was' => ['bail', 'nullable', 'string', 'max:64'],
            'fields.*.type' => ['nullable', Rule::enum(FieldType::class)],
            'fields.*.expression' => ['bail', 'nullable', 'string', 'max:2000'],
            'fields.*.meaning' => ['bail', 'nullable', 'string', 'max:300'],
            'fields.*.sensitive' => ['boolean'],
            'fields.*.column' => ['bail', 'nullable', 'string', 'max:200'],
            'fields.*.form' => ['nullable', Rule::in(RecordCell::FORMS)],
            'unitField' => ['bail', 'nullable', 'string', 'max:64'],
            'unitNames' => ['array'],
            'unitNames.*' => ['bail', 'string', 'max:64'],
            'coversFrom' => ['bail', 'nullable', 'string', 'date_format:Y-m-d'],
            'coversTo' => ['bail', 'nullable', 'string', 'date_format:Y-m-d'],
            'coversByLoads' => ['required', 'boolean'],
            'mode' => ['required', Rule::in(['add', 'key', 'all'])],
            'owners' => ['present', 'array'],
            'owners.*' => ['integer', Rule::exists('users', 'id')],
            'upload' => ['nullable', 'uuid'],
            'file' => ['bail', 'nullable', 'string', 'max:200'],
            'version' => ['required', 'integer', 'between:0,2147483647'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'code.required' => 'A record set needs a short code.',
            'code.*' => 'A code starts with a letter and has only letters, digits, hyphens, points and underscores.',
            'name.*' => 'What are these records called?',
            'noun.*' => 'What does one call several of them: jobs, cases, invoices?',
            'unit.*' => 'Choose whose records they are.',
            'key.*' => 'Choose the field that tells records apart.',
            'fields.*.name.required' => 'A field needs a name.',
            'fields.*.name.*' => 'A name starts with a letter and has only letters, digits and underscores.',
            'fields.*' => 'These are no fields of records.',
            'coversFrom.*' => 'A day such as 2024-04-01.',
            'coversTo.*' => 'A day such as 2026-08-31.',
        ];
    }

    /** @return list<callable(Validator): void> */
    public function after(Organisation $organisation, Rights $rights): array
    {
        return [function (Validator $validator) use ($organisation, $rights): void {
            if ($validator->errors()->isNotEmpty()) {
                return;
            }
            /** @var User $user */
            $user = $this->user();
            $unit = $organisation->byCode($this->string('unit')->toString());
            if ($unit === null || ! $rights->analyses($user, $unit->id)) {
                $validator->errors()->add('unit', 'Choose a unit for which you do an analyst\'s work.');
            }
            $set = $this->route('recordSet');
            if (RecordSet::query()->whereRaw('lower(code) = lower(?)', [$this->string('code')->toString()])->where('id', '<>', $set instanceof RecordSet ? $set->id : 0)->exists()) {
                $validator->errors()->add('code', 'Another record set has this code.');
            }
            $text = fn (mixed $given): string => is_string($given) ? $given : '';
            $types = array_column(array_map(fn (array $field): array => ['name' => $text($field['name'] ?? null), 'type' => $text($field['type'] ?? null)], array_values(array_filter($this->array('fields'), is_array(...)))), 'type', 'name');
            if ($this->filled('unitField') && ($types[$this->string('unitField')->toString()] ?? '') !== FieldType::Text->value) {
                $validator->errors()->add('unitField', 'Units are named by a field of text.');
            }
        }];
    }

    /**
     * @param  array<array-key, mixed>  $given
     * @return array<string, string>
     */
    public static function texts(array $given): array
    {
        $texts = [];
        foreach ($given as $name => $text) {
            $texts[(string) $name] = is_string($text) ? $text : '';
        }

        return $texts;
    }

    public function wanted(Organisation $organisation): WantedSet
    {
        $text = fn (mixed $given): ?string => is_string($given) && $given !== '' ? $given : null;

        return new WantedSet(
            $this->string('code')->toString(),
            $this->string('name')->squish()->toString(),
            $this->string('noun')->squish()->toString(),
            $organisation->byCode($this->string('unit')->toString())->id ?? throw new \LogicException('A request that passed names a unit.'),
            $this->string('key')->toString(),
            array_values(array_map(fn (array $field): array => [
                'name' => $text($field['name'] ?? null) ?? '', 'was' => $text($field['was'] ?? null), 'type' => $text($field['type'] ?? null), 'expression' => $text($field['expression'] ?? null),
                'meaning' => $text($field['meaning'] ?? null) ?? '', 'sensitive' => filter_var($field['sensitive'] ?? false, FILTER_VALIDATE_BOOLEAN), 'column' => $text($field['column'] ?? null), 'form' => $text($field['form'] ?? null) ?? '',
            ], array_filter($this->array('fields'), is_array(...)))),
            $this->filled('unitField') ? $this->string('unitField')->toString() : null,
            self::texts($this->array('unitNames')),
            $this->filled('coversFrom') ? $this->string('coversFrom')->toString() : null,
            $this->filled('coversTo') ? $this->string('coversTo')->toString() : null,
            $this->boolean('coversByLoads'),
            $this->string('mode')->toString(),
            array_values(array_map(intval(...), array_filter($this->array('owners'), is_numeric(...)))),
            $this->integer('version'),
        );
    }
}
