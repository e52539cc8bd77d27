package sarnik.standins;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpHandler;
import java.io.IOException;
import java.net.URI;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;

/**
 * Stands in for the site of a newspaper that shows a dashboard within an article: {@code /news?frame=ADDRESS}. It
 * writes down what the frame tells it, and has a button that tells the frame to show still water only.
 */
final class NewsSite {

    private static final String PAGE = """
            <!DOCTYPE html>
            <html lang="en">
            <head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>The Meseta Gazette</title>
            <style>body { font: 18px/1.55 Georgia, serif; max-width: 980px; margin: 0 auto; padding: 16px; background: #fff; color: #222 }
            h1 { font-size: 34px; line-height: 1.15; margin: 12px 0 } .head { border-bottom: 3px double #222; font-variant: small-caps; letter-spacing: .08em }
            iframe { width: 100%; height: 320px; border: 0 } pre { font-size: 12px; white-space: pre-wrap; color: #666 }</style></head>
            <body>
            <p class="head">The Meseta Gazette, a made-up newspaper</p>
            <h1>A glass of water, and who fills it again</h1>
            <p>Nine hundred kiosks give out water in bottles that people bring along. Where they stand, and what is filled there, can be seen below.</p>
            <iframe id="sheet" src="@frame" title="Water kiosks"></iframe>
            <p><button id="still" type="button">Only still water</button> What is chosen above can be followed here:</p>
            <pre id="told"></pre>
            <p>More in tomorrow's paper.</p>
            <script src="@script"></script>
            <script>
            const frame = document.getElementById('sheet');
            addEventListener('message', e => {
              if (e.source === frame.contentWindow && e.data.from === 'sarnik' && e.data.type !== 'height')
                document.getElementById('told').append(JSON.stringify(e.data) + '\\n');
            });
            document.getElementById('still').addEventListener('click', () =>
              frame.contentWindow.postMessage({ to: 'sarnik', type: 'choose', state: 'f.f1=still' }, new URL(frame.src).origin));
            </script>
            </body>
            </html>
            """;

    private NewsSite() {}

    static HttpHandler page() {
        return NewsSite::answer;
    }

    private static void answer(HttpExchange exchange) throws IOException {
        String query = exchange.getRequestURI().getRawQuery();
        String frame = query != null && query.startsWith("frame=")
                ? URLDecoder.decode(query.substring("frame=".length()), StandardCharsets.UTF_8)
                : "about:blank";
        String origin = "";
        try {
            URI address = URI.create(frame);
            origin = address.getScheme() + "://" + address.getAuthority();
        } catch (IllegalArgumentException unfit) {
            frame = "about:blank";
        }
        byte[] bytes = PAGE.replace("@frame", escaped(frame))
                .replace("@script", escaped(origin + "/js/framing.js"))
                .getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
        exchange.sendResponseHeaders(200, bytes.length);
        try (var out = exchange.getResponseBody()) {
            out.write(bytes);
        }
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("\"", "&quot;").replace("<", "&lt;");
    }
}
