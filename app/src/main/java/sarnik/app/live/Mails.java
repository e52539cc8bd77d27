package sarnik.app.live;

import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.nio.charset.StandardCharsets;
import java.util.Properties;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.mail.MailException;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.stereotype.Component;

/** Sends mail by the server that the settings name. */
@Component
class Mails {

    private static final String PATIENCE_MILLIS = "10000";

    private final String from;
    private final JavaMailSenderImpl sender;

    /** @param security of the connection: {@code none}, {@code starttls}, or {@code tls} from the first byte */
    Mails(
            @Value("${sarnik.mail.host:}") String host,
            @Value("${sarnik.mail.port:25}") int port,
            @Value("${sarnik.mail.user:}") String user,
            @Value("${sarnik.mail.password:}") String password,
            @Value("${sarnik.mail.from:sarnik@localhost}") String from,
            @Value("${sarnik.mail.security:none}") String security) {
        this.from = from;
        if (host.isBlank()) {
            sender = null;
            return;
        }
        sender = new JavaMailSenderImpl();
        sender.setHost(host);
        sender.setPort(port);
        sender.setDefaultEncoding(StandardCharsets.UTF_8.name());
        if (!user.isBlank()) {
            sender.setUsername(user);
            sender.setPassword(password);
        }
        Properties said = sender.getJavaMailProperties();
        said.setProperty("mail.smtp.auth", String.valueOf(!user.isBlank()));
        said.setProperty("mail.smtp.starttls.required", String.valueOf(security.equals("starttls")));
        said.setProperty("mail.smtp.ssl.enable", String.valueOf(security.equals("tls")));
        said.setProperty("mail.smtp.ssl.checkserveridentity", "true");
        for (String wait : new String[] {"connectiontimeout", "timeout", "writetimeout"})
            said.setProperty("mail.smtp." + wait, PATIENCE_MILLIS);
    }

    /** Whether the settings name a server. */
    boolean isThere() {
        return sender != null;
    }

    /** @throws MailException when it cannot be sent; its message says why */
    void send(String to, String subject, String text) {
        MimeMessage message = sender.createMimeMessage();
        try {
            MimeMessageHelper helper = new MimeMessageHelper(message, StandardCharsets.UTF_8.name());
            helper.setFrom(from);
            helper.setTo(to);
            // A line break would begin another header.
            helper.setSubject(subject.replaceAll("\\s+", " "));
            helper.setText(text);
        } catch (MessagingException odd) {
            throw new org.springframework.mail.MailParseException(odd);
        }
        sender.send(message);
    }
}
