<?php
// Writes what PHP's scanner and the package php-parser say of PHP files, as DumpedTruth reads it: php php.php FOLDER… >DUMP
// Needs php-cli and php-parser (4.15) of Debian, or PHP_PARSER set to a file that loads the package.
require getenv('PHP_PARSER') ?: 'PhpParser/autoload.php';

use PhpParser\Node;
use PhpParser\Node\Stmt;

/** What a tree declares; containers are names joined by colons, null below an anonymous class. */
final class Declarations
{
    private array $lines = [];

    public function of(array $statements): array
    {
        $namespace = '';
        foreach ($statements as $statement) {
            if ($statement instanceof Stmt\Namespace_) {
                $namespace = $statement->name === null ? '' : $statement->name->toString();
                if ($statement->name !== null) {
                    $braces = $statement->getAttribute('kind') === Stmt\Namespace_::KIND_BRACED;
                    $this->declare($namespace, $statement->name, $braces ? $statement : null, '');
                }
                $this->walk($statement->stmts, $namespace);
            } else {
                $this->walk([$statement], '');
            }
        }
        return $this->lines;
    }

    private function declare(string $name, Node $at, ?Node $whole, ?string $container): void
    {
        $line = $at->getStartLine();
        $end = $whole === null ? '-' : $whole->getEndLine();
        $this->lines[] = implode("\t", ['D', $name, $line, $end, $container ?? '-']);
    }

    private static function inside(?string $container, string $name): ?string
    {
        return $container === null ? null : ($container === '' ? $name : $container . '::' . $name);
    }

    private function walk(array $nodes, ?string $in): void
    {
        foreach ($nodes as $node) {
            if (is_array($node)) {
                $this->walk($node, $in);
            } elseif ($node instanceof Node) {
                $this->node($node, $in);
            }
        }
    }

    private function node(Node $node, ?string $in): void
    {
        $within = $in;
        if ($node instanceof Stmt\ClassLike || $node instanceof Stmt\Function_ || $node instanceof Stmt\ClassMethod) {
            if ($node->name === null) {
                $within = null;
            } else {
                $this->declare($node->name->toString(), $node->name, $node, $in);
                $within = self::inside($in, $node->name->toString());
            }
        } elseif ($node instanceof Stmt\ClassConst || $node instanceof Stmt\Const_) {
            foreach ($node->consts as $const) {
                $this->declare($const->name->toString(), $const->name, null, $in);
            }
        } elseif ($node instanceof Stmt\EnumCase) {
            $this->declare($node->name->toString(), $node->name, null, $in);
        } elseif ($node instanceof Stmt\PropertyProperty) {
            $this->declare($node->name->toString(), $node->name, null, $in);
        } elseif ($node instanceof Node\Param && $node->flags !== 0) {
            $class = $in === null ? null : substr($in, 0, -strlen('::__construct'));
            $this->declare($node->var->name, $node->var, null, $class);
        }
        foreach ($node->getSubNodeNames() as $part) {
            $below = $node->$part;
            $this->walk(is_array($below) ? $below : [$below], $within);
        }
    }
}

/** Comments and strings; what stands in braces in a string is code, as is what begins a heredoc. */
function regions(string $text): array
{
    $lines = [];
    $open = []; // what closes the strings and braces that are open
    foreach (PhpToken::tokenize($text) as $token) {
        $inner = end($open);
        $region = null;
        $size = strlen($token->text);
        if ($token->is(T_INLINE_HTML)) {
            continue;
        }
        if ($token->is([T_COMMENT, T_DOC_COMMENT])) {
            $region = 'comment';
            $size = strlen(rtrim($token->text, "\n"));
        } elseif ($token->is(T_CONSTANT_ENCAPSED_STRING)) {
            $region = 'string';
        } elseif ($token->is([T_CURLY_OPEN, T_DOLLAR_OPEN_CURLY_BRACES])) {
            $region = 'string';
            $size = 2; // the dollar sign behind it belongs to what begins code
            $open[] = '}';
        } elseif ($token->is(T_START_HEREDOC)) {
            $open[] = 'heredoc';
        } elseif ($token->is(T_END_HEREDOC)) {
            $region = 'string';
            array_pop($open);
        } elseif ($token->text === $inner) {
            $region = 'string';
            array_pop($open);
        } elseif ($token->text === '}' && $inner === 'code') {
            array_pop($open);
        } elseif (in_array($token->text, ['"', '`', 'b"']) && !in_array($inner, ['"', '`', 'heredoc'], true)) {
            $region = 'string';
            $open[] = ltrim($token->text, 'b');
        } elseif ($inner === '}' || $inner === 'code') {
            if ($token->text === '{') {
                $open[] = 'code';
            }
        } elseif ($inner !== false) {
            $region = 'string';
        }
        if ($region !== null) {
            $lines[] = implode("\t", ['R', $region, $token->pos, $token->pos + $size]);
        }
    }
    return $lines;
}

ini_set('memory_limit', '2G');
$lexer = new PhpParser\Lexer\Emulative(['usedAttributes' => ['startLine', 'endLine']]);
$parser = (new PhpParser\ParserFactory())->create(PhpParser\ParserFactory::PREFER_PHP7, $lexer);
foreach (array_slice($argv, 1) as $folder) {
    $paths = [$folder];
    if (is_dir($folder)) {
        $all = new RecursiveIteratorIterator(new RecursiveDirectoryIterator($folder, FilesystemIterator::SKIP_DOTS));
        $paths = [];
        foreach ($all as $file) {
            if ($file->isFile() && !$file->isLink() && $file->getExtension() === 'php') {
                $paths[] = $file->getPathname();
            }
        }
        sort($paths);
    }
    foreach ($paths as $path) {
        $text = file_get_contents($path);
        if (!preg_match('//u', $text) || str_contains($text, "\r")) {
            continue;
        }
        try {
            $tree = $parser->parse($text);
        } catch (PhpParser\Error $e) {
            continue;
        }
        echo "F\t$path\n";
        foreach ([...(new Declarations())->of($tree), ...regions($text)] as $line) {
            echo $line, "\n";
        }
    }
}
