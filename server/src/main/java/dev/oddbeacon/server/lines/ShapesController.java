package dev.oddbeacon.server.lines;

import dev.oddbeacon.api.ShapeOfCode;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.shape.Shape;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.server.web.BadRequestException;
import io.swagger.v3.oas.annotations.Operation;
import java.util.Objects;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** {@code POST /api/v1/shapes}: code becomes an expression. */
@RestController
@RequestMapping("/api/v1/shapes")
class ShapesController {
    @Operation(
            summary = "Expressions that find where code is written again",
            description =
                    "Of a piece of a file: the shape of the code as it stands, and with variables instead of its names, numbers and strings.")
    @PostMapping
    ShapeOfCode shape(@RequestBody ShapeOfCode.Code of) {
        String code = Objects.requireNonNullElse(of.code(), "");
        TextQuery.check(code);
        Language language = Language.named(Objects.requireNonNullElse(of.language(), ""))
                .orElseThrow(() -> new BadRequestException("There is no profile for the language \"" + of.language()
                        + "\": what is code in it is not known. Search for the text."));
        dev.oddbeacon.core.shape.ShapeOfCode shapes = dev.oddbeacon.core.shape.ShapeOfCode.of(code, language)
                .orElseThrow(() -> new BadRequestException("There is no code in it, only blanks or comments."));
        return new ShapeOfCode(
                printed(shapes.same()),
                shapes.alike().map(ShapesController::printed).orElse(null));
    }

    private static String printed(Shape shape) {
        return ExpressionPrinter.print(new TextClause.OfShape(shape));
    }
}
