package dev.oddbeacon.server.watches;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.Watch;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.web.BadRequestException;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Date;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.stream.Collectors;
import org.springframework.mail.MailException;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.stereotype.Component;

/** Sends mails through the server that is set, to addresses that are allowed. */
@Component
class Mails {
    private static final Duration TIMEOUT = Duration.ofSeconds(15);
    private static final int LONGEST_ADDRESS = 320; // characters
    private static final int MOST_SHOWN = 20; // results of a notice

    private final Settings.Mail settings;
    private final Optional<String> site;

    Mails(Settings settings) {
        this.settings = settings.mail();
        this.site = settings.names().stream().findFirst().map(name -> "https://" + name);
    }

    /** @throws BadRequestException if no mail can be sent there */
    void check(String address) {
        refusal(address).ifPresent(why -> {
            throw new BadRequestException(why);
        });
    }

    private Optional<String> refusal(String address) {
        if (settings.server().isEmpty()) {
            return Optional.of("No mail server is set here. Whoever runs the service sets oddbeacon.mail.server.");
        }
        try {
            if (address.length() > LONGEST_ADDRESS || !Visible.isVisible(address) || address.indexOf('@') < 1) {
                throw new AddressException();
            }
            new InternetAddress(address, true).validate();
        } catch (AddressException e) {
            return Optional.of("\"" + address + "\" is no address of a mailbox. Write it as name@host.");
        }
        return settings.to().stream().anyMatch(glob -> Glob.ofName(glob).matches(address))
                ? Optional.empty()
                : Optional.of("No mail is sent to " + address
                        + ". Whoever runs the service allows addresses by oddbeacon.mail.to.");
    }

    /** Sends a message once. @param id of the message, the same at each attempt */
    Outcome send(String address, String search, String id, Instant made, List<Watch.Notice> notices) {
        Optional<String> refusal = refusal(address);
        if (refusal.isPresent()) {
            return new Outcome(false, "Not sent: " + refusal.get());
        }
        try {
            JavaMailSenderImpl sender = sender();
            MimeMessage message = new IdentifiedMessage(sender.createMimeMessage(), id);
            MimeMessageHelper helper = new MimeMessageHelper(message, StandardCharsets.UTF_8.name());
            helper.setFrom(settings.from());
            helper.setTo(address);
            helper.setSubject(subject(search, notices));
            helper.setSentDate(Date.from(made));
            helper.setText(text(search, notices));
            sender.send(message);
            return new Outcome(true, "Taken by " + settings.server());
        } catch (MailException | MessagingException e) {
            return new Outcome(
                    false, "Not taken: " + Optional.ofNullable(e.getMessage()).orElse(e.toString()));
        }
    }

    /** A message that keeps its id although it is sent again. */
    private static final class IdentifiedMessage extends MimeMessage {
        private final String id;

        IdentifiedMessage(MimeMessage of, String id) throws MessagingException {
            super(of.getSession());
            this.id = id;
        }

        @Override
        protected void updateMessageID() throws MessagingException {
            setHeader("Message-ID", "<" + id + "@oddbeacon>");
        }
    }

    private JavaMailSenderImpl sender() {
        JavaMailSenderImpl sender = new JavaMailSenderImpl();
        int colon = settings.server().lastIndexOf(':');
        sender.setHost(colon < 0 ? settings.server() : settings.server().substring(0, colon));
        sender.setPort(
                colon < 0 ? usualPort() : Integer.parseInt(settings.server().substring(colon + 1)));
        if (!settings.user().isEmpty()) {
            sender.setUsername(settings.user());
            sender.setPassword(settings.password());
        }
        boolean tls = settings.encryption() == Settings.Mail.Encryption.TLS;
        String protocol = tls ? "smtps" : "smtp";
        sender.setProtocol(protocol);
        Properties properties = sender.getJavaMailProperties();
        String start = "mail." + protocol + ".";
        properties.put(start + "auth", Boolean.toString(!settings.user().isEmpty()));
        properties.put(start + "ssl.checkserveridentity", "true");
        for (String time : List.of("connectiontimeout", "timeout", "writetimeout")) {
            properties.put(start + time, Long.toString(TIMEOUT.toMillis()));
        }
        boolean starts = settings.encryption() == Settings.Mail.Encryption.STARTTLS;
        properties.put(start + "starttls.enable", Boolean.toString(starts));
        properties.put(start + "starttls.required", Boolean.toString(starts));
        return sender;
    }

    private int usualPort() {
        return switch (settings.encryption()) {
            case STARTTLS -> 587;
            case TLS -> 465;
            case NONE -> 25;
        };
    }

    private static String subject(String search, List<Watch.Notice> notices) {
        int came = notices.stream().mapToInt(Watch.Notice::cameCount).sum();
        int went = notices.stream().mapToInt(Watch.Notice::wentCount).sum();
        String in = notices.stream()
                .map(Watch.Notice::repository)
                .distinct()
                .limit(3)
                .collect(Collectors.joining(", "));
        return search + ": " + (came > 0 || went == 0 ? came + " new" : "") + (came > 0 && went > 0 ? ", " : "")
                + (went > 0 ? went + " gone" : "") + " in " + in;
    }

    private String text(String search, List<Watch.Notice> notices) {
        StringBuilder text = new StringBuilder();
        for (Watch.Notice notice : notices) {
            text.append(notice.repository()).append('\n');
            append(text, "+", notice.came(), notice.cameCount());
            append(text, "-", notice.went(), notice.wentCount());
            text.append('\n');
        }
        text.append("You watch ").append(search).append(" in Odd Beacon.\n");
        site.ifPresent(address ->
                text.append(address).append("/saved?search=").append(search).append('\n'));
        return text.toString();
    }

    private static void append(StringBuilder text, String sign, List<Result> results, int count) {
        results.stream()
                .limit(MOST_SHOWN)
                .forEach(result -> text.append(sign)
                        .append(' ')
                        .append(result.path() == null ? result.commit() : result.path())
                        .append(result.line() == null ? "" : ":" + result.line())
                        .append(
                                result.text() == null
                                        ? ""
                                        : ": " + result.text().strip())
                        .append('\n'));
        if (count > MOST_SHOWN) {
            text.append(sign).append(" and ").append(count - MOST_SHOWN).append(" more\n");
        }
    }
}
