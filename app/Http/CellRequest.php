<?php

declare(strict_types=1);

namespace App\Http;

use App\Figures\KpiFacts;
use App\Figures\KpiStore;
use App\Models\KpiUnit;
use App\Models\User;
use Illuminate\Foundation\Http\FormRequest;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/**
 * A request about one period of one KPI in one unit, which the route names.
 */
abstract class CellRequest extends FormRequest
{
    private ?KpiFacts $facts = null;

    public function facts(): KpiFacts
    {
        $measured = $this->route('measured');

        return $this->facts ??= app(KpiStore::class)->described([$measured instanceof KpiUnit ? $measured->id : 0])[$measured->id ?? 0]
            ?? throw new NotFoundHttpException;
    }

    public function period(): Period
    {
        /** @var string $period */
        $period = $this->route('period');
        try {
            return Period::parse($period, $this->facts()->measurement->definition->frequency);
        } catch (InvalidArgumentException) {
            throw new NotFoundHttpException;
        }
    }

    public function person(): User
    {
        /** @var User $user no route lets anybody else through */
        $user = $this->user();

        return $user;
    }
}
