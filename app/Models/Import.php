<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A file of figures: read, previewed, applied, perhaps undone.
 *
 * @property int $id
 * @property string $batch marks what it changed in the trail
 * @property int|null $user_id
 * @property int|null $unit_id the unit that it was sent for, with all below it
 * @property string $file its name, as the person has it
 * @property string|null $path where it is kept; null once nobody needs it any more
 * @property string $sheet that is read; blank where the file is one table
 * @property int $head the line in which the columns are named
 * @property int $turn counts who was set to work on it
 * @property string $state `mapping`, `reading`, `ready`, `applying`, `applied`, `undoing`, `undone` or `failed`
 * @property array{roles?: array<int, string>, periods?: array<int, string>} $mapping
 * @property int $rows_read
 * @property string $problem why it failed, in words
 */
final class Import extends Model
{
    protected $fillable = ['batch', 'user_id', 'unit_id', 'file', 'path', 'state', 'sheet', 'head', 'mapping', 'rows_read', 'problem'];

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['mapping' => 'array', 'rows_read' => 'integer', 'head' => 'integer', 'turn' => 'integer'];
    }
}
