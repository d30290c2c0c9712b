package dev.oddbeacon.server.issuer;

/** The issuer does not answer, or not as OpenID Connect says. */
final class IssuerGoneException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    IssuerGoneException(String message) {
        super(message);
    }

    IssuerGoneException(String message, Throwable cause) {
        super(message, cause);
    }
}
