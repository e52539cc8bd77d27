package sarnik.standins;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.GreenMailUtil;
import com.icegreen.greenmail.util.ServerSetup;
import com.sun.net.httpserver.HttpHandler;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/** Receives mail by SMTP on loopback, for whomever it is, and what is sent to its web hook, and shows both. */
public final class Mailbox implements AutoCloseable {

    private static final int MOST = 100;

    private final GreenMail server;
    private final List<String> hooked = new CopyOnWriteArrayList<>();

    private Mailbox(int port) {
        server = new GreenMail(new ServerSetup(port, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
    }

    /** @param port 0 for any that is free */
    public static Mailbox start(int port) {
        Mailbox mailbox = new Mailbox(port);
        mailbox.server.start();
        return mailbox;
    }

    public int port() {
        return server.getSmtp().getPort();
    }

    /**
     * A mail as it came.
     *
     * @param text what it says, without its head
     */
    public record Mail(String to, String subject, String text) {}

    /** What has come by mail, the first first. */
    public List<Mail> mails() {
        List<Mail> mails = new ArrayList<>();
        for (MimeMessage message : server.getReceivedMessages()) {
            try {
                mails.add(new Mail(
                        Arrays.toString(message.getAllRecipients()),
                        message.getSubject(),
                        String.valueOf(message.getContent())));
            } catch (MessagingException | IOException broken) {
                mails.add(new Mail("", "A mail that cannot be read", GreenMailUtil.getBody(message)));
            }
        }
        return mails;
    }

    /** What was sent to the web hook, the first first. */
    public List<String> hooked() {
        return List.copyOf(hooked);
    }

    @Override
    public void close() {
        server.stop();
    }

    /** Takes what is sent to the web hook. */
    HttpHandler hook() {
        return exchange -> {
            hooked.add(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            while (hooked.size() > MOST) hooked.remove(0);
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        };
    }

    /** Shows what has come, the newest first. */
    HttpHandler page() {
        return exchange -> {
            StringBuilder html =
                    new StringBuilder("<!DOCTYPE html><meta charset=utf-8><title>Mail</title><style>body{font:15px "
                            + "sans-serif;max-width:60em;margin:2em auto}pre{white-space:pre-wrap;border-left:3px "
                            + "solid #bbb;padding-left:1em}</style><h1>What has come by mail</h1>");
            List<Mail> newest = new ArrayList<>(mails());
            java.util.Collections.reverse(newest);
            newest.stream()
                    .limit(MOST)
                    .forEach(mail -> html.append("<h2>")
                            .append(escaped(mail.subject))
                            .append("</h2><p>to ")
                            .append(escaped(mail.to))
                            .append("</p><pre>")
                            .append(escaped(mail.text))
                            .append("</pre>"));
            html.append("<h1>What was sent to the web hook</h1>");
            hooked.stream()
                    .sorted(Comparator.reverseOrder())
                    .forEach(one -> html.append("<pre>").append(escaped(one)).append("</pre>"));
            byte[] bytes = html.toString().getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
            exchange.sendResponseHeaders(200, bytes.length);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        };
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;");
    }
}
