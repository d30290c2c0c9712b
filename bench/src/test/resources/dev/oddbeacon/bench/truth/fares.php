<?php
declare(strict_types=1);

namespace Quillhaven\Fares;

use function strlen;

# it's a comment: class Ghost {
const MOST = 4, LEAST = 1;

#[Attribute]
interface Payable extends A, B
{
    public function pay(int $amount): bool;
    const UNIT = 'eur';
}

trait Counts
{
    private int $count = 0;
    public static function make(): static { return new static; }
}

enum Side: string
{
    case Port = 'p';
    case Starboard = 's';
    const Best = self::Port;
    public function label(): string
    {
        return match ($this) { self::Port => "{$this->name[0]}", default => 'S' };
    }
}

abstract class Fare extends Base implements Payable, \Countable
{
    use Counts { make as protected made; }
    public const ZONES = 3, DAYS = 7;
    public ?string $name = "class X {$this->y} {", $other;
    protected static array $rows = ['class' => 1];
    var $old;

    public function __construct(private int $zone, protected ?string $class = null, $plain = 1)
    {
        $f = function ($x) use ($zone) { return $x; };
        $g = static fn($y) => "{$this->rows[$y]} \"{$zone}\"";
    }

    public function class(): string { return Fare::class; }
    public function namespace($name) { return $name; }
    final public static function &list(string $from): ?self
    {
        switch (true) {
            case $class->isVersioned():
                if ($class->open) {
                    assert($class->field !== null);
                    return $class->get($from);
                }
            default:
                return null;
        }
        $text = <<<SQL
        create function not_here() { {$this->rows['x']} }
        SQL;
        return new class ($text) extends Fare implements \Countable {
            public function total(): float { return 1.0; }
        };
    }
}

if ($open): ?><p class="x">function ghost() {}</p><?php endif;
if (!function_exists('helper')) :
    function helper(int ...$all)
    {
        function inner() { return `ls {$all[0]}`; }
        foreach ($all as $one) :
            $sum = <<<'RAW'
            function raw() { {$x}
            RAW;
        endforeach;
        return 1;
    }

    class Within
    {
        var $at;
    }
endif;
?>
<p>function outside() {}</p>
