<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Views\PictureView;
use App\Models\Briefing;
use App\Support\PictureCheck;
use Illuminate\Database\Connection;
use InvalidArgumentException;

/**
 * Pictures on briefings, kept with the data. What shows one has it in itself: an issue keeps it, and a link shows it.
 */
final readonly class Pictures
{
    public const MOST_BYTES = 512 * 1024;

    private const MOST_SIDE = 3000;

    public function __construct(private Connection $database) {}

    /**
     * @return int its identity; the same picture has the same
     *
     * @throws InvalidArgumentException with what is wrong, for whoever chose it
     */
    public function take(Briefing $briefing, string $bytes): int
    {
        $picture = PictureCheck::of($bytes, self::MOST_BYTES, self::MOST_SIDE);
        $row = ['briefing_id' => $briefing->id, 'type' => $picture->type, 'width' => $picture->width, 'height' => $picture->height, 'bytes' => base64_encode($bytes), 'digest' => $picture->digest()];
        $this->database->table('briefing_pictures')->insertOrIgnore($row);
        $id = $this->database->table('briefing_pictures')->where('briefing_id', $briefing->id)->where('digest', $picture->digest())->value('id');

        return is_int($id) ? $id : throw new \LogicException('A picture that was kept is there.');
    }

    /**
     * @param  list<int>  $ids
     * @return array<int, PictureView> by identity
     */
    public function some(array $ids): array
    {
        $found = [];
        foreach ($ids === [] ? [] : $this->database->table('briefing_pictures')->whereIn('id', $ids)->get() as $row) {
            if (is_int($row->id) && is_string($row->type) && is_string($row->bytes) && is_int($row->width) && is_int($row->height)) {
                $found[$row->id] = new PictureView("data:image/{$row->type};base64,{$row->bytes}", $row->width, $row->height);
            }
        }

        return $found;
    }
}
