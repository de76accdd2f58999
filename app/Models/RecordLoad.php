<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A load of records: read, previewed, brought in, perhaps taken back.
 *
 * @property int $id
 * @property int $record_set_id
 * @property int|null $user_id
 * @property string $way `file`, `folder`, `address`, `query` or `sent`
 * @property string $file its name, as people have it
 * @property string|null $path where it is kept; null once nobody needs it any more
 * @property string $sheet that is read; blank where the file is one table
 * @property string $mode `add`, `key` or `all`
 * @property array<string, array{field: string, form: string}> $mapping by the name of the column
 * @property string $state `mapping`, `reading`, `ready`, `applying`, `applied`, `undoing`, `undone` or `failed`
 * @property bool $is_unattended whether it goes on by itself once it has been read
 * @property int $turn counts who was set to work on it
 * @property string $problem why it failed, in words
 * @property int $progress records that have been read
 * @property int $brought
 * @property int $added
 * @property int $changed
 * @property int $same
 * @property int $gone
 * @property int $refused
 * @property string|null $covers_to up to which day the set is complete with it
 * @property string|null $covers_to_before
 * @property string|null $mark what is sent twice under one mark is taken once
 * @property string|null $applied_at
 * @property string $created_at
 */
final class RecordLoad extends Model
{
    protected $fillable = ['record_set_id', 'user_id', 'way', 'file', 'path', 'sheet', 'mode', 'mapping', 'state', 'is_unattended', 'covers_to', 'mark'];

    /** @return array<string, string> */
    protected function casts(): array
    {
        return [
            'mapping' => 'array', 'is_unattended' => 'boolean', 'turn' => 'integer', 'created_at' => 'string',
            'progress' => 'integer', 'brought' => 'integer', 'added' => 'integer', 'changed' => 'integer', 'same' => 'integer', 'gone' => 'integer', 'refused' => 'integer',
        ];
    }
}
