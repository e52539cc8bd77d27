package sarnik.standins;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.math.BigInteger;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.Signature;
import java.security.interfaces.RSAPublicKey;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.stream.Collectors;

/**
 * Stands in for a provider of OpenID Connect (code flow, RS256) at which made-up people sign in by a press. It vouches
 * for whoever is pressed; nothing of it is meant for more than tests.
 */
public final class OpenIdProvider implements AutoCloseable {

    /** Somebody who signs in here. */
    private record Person(String subject, String name, String email, boolean verified) {}

    private static final Map<String, Person> PEOPLE = Map.of(
            "iria", new Person("iria-0117", "Iria Cabanas", "iria@aljibe.example", true),
            "teo", new Person("teo-0452", "Teo Lozano", "teo@aljibe.example", true),
            "sly", new Person("sly-0666", "Sly", "iria@aljibe.example", false));

    private static final int SECONDS = 300;

    /** A code that was given out, and what it is good for. */
    private record Given(Person person, String nonce, String client, String back) {}

    private final HttpServer server;
    private final KeyPair keys;
    private final Map<String, Given> codes = new ConcurrentHashMap<>();
    private final Map<String, Person> tokens = new ConcurrentHashMap<>();

    private OpenIdProvider(HttpServer server, KeyPair keys) {
        this.server = server;
        this.keys = keys;
    }

    /** @param port of loopback; 0 for any */
    public static OpenIdProvider start(int port) throws IOException {
        try {
            HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 16);
            KeyPairGenerator generator = KeyPairGenerator.getInstance("RSA");
            generator.initialize(2048);
            OpenIdProvider provider = new OpenIdProvider(server, generator.generateKeyPair());
            server.createContext("/.well-known/openid-configuration", provider::configuration);
            server.createContext("/authorize", provider::authorize);
            server.createContext("/token", provider::token);
            server.createContext("/keys", provider::keys);
            server.createContext("/about", provider::about);
            server.setExecutor(Executors.newFixedThreadPool(2, run -> {
                Thread thread = new Thread(run, "provider");
                thread.setDaemon(true);
                return thread;
            }));
            server.start();
            return provider;
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    public String issuer() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    @Override
    public void close() {
        server.stop(0);
    }

    private void configuration(HttpExchange exchange) throws IOException {
        json(exchange, 200, """
                {"issuer":"%1$s","authorization_endpoint":"%1$s/authorize","token_endpoint":"%1$s/token","jwks_uri":"%1$s/keys",
                "userinfo_endpoint":"%1$s/about","response_types_supported":["code"],"subject_types_supported":["public"],
                "id_token_signing_alg_values_supported":["RS256"],"scopes_supported":["openid","profile","email"]}""".formatted(issuer()));
    }

    /** A page with a button for each of the people; pressed, it goes back with a code. */
    private void authorize(HttpExchange exchange) throws IOException {
        Map<String, String> asked = read(exchange.getRequestURI().getRawQuery());
        Person person = PEOPLE.get(asked.getOrDefault("as", ""));
        if (person == null) {
            String buttons = PEOPLE.keySet().stream()
                    .sorted()
                    .map(name -> "<p><a href=\"?%s&as=%s\">%s</a></p>"
                            .formatted(exchange.getRequestURI().getRawQuery().replace("&", "&amp;"), name, name))
                    .collect(Collectors.joining());
            answer(
                    exchange,
                    200,
                    "text/html; charset=utf-8",
                    "<!DOCTYPE html><title>A made-up provider</title>" + buttons);
            return;
        }
        String code = UUID.randomUUID().toString();
        codes.put(code, new Given(person, asked.get("nonce"), asked.get("client_id"), asked.get("redirect_uri")));
        exchange.getResponseHeaders()
                .set(
                        "Location",
                        asked.get("redirect_uri") + "?code=" + code + "&state="
                                + URLEncoder.encode(asked.getOrDefault("state", ""), StandardCharsets.UTF_8));
        exchange.sendResponseHeaders(302, -1);
        exchange.close();
    }

    private void token(HttpExchange exchange) throws IOException {
        Map<String, String> asked = read(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
        Given given = codes.remove(asked.getOrDefault("code", ""));
        if (given == null || !given.back.equals(asked.get("redirect_uri"))) {
            json(exchange, 400, "{\"error\":\"invalid_grant\"}");
            return;
        }
        String token = UUID.randomUUID().toString();
        tokens.put(token, given.person);
        long now = System.currentTimeMillis() / 1000;
        Map<String, Object> claims = claims(given.person);
        claims.put("iss", issuer());
        claims.put("aud", given.client);
        claims.put("iat", now);
        claims.put("exp", now + SECONDS);
        claims.put("nonce", given.nonce);
        json(
                exchange,
                200,
                "{\"access_token\":\"%s\",\"token_type\":\"Bearer\",\"expires_in\":%d,\"id_token\":\"%s\"}"
                        .formatted(token, SECONDS, signed(object(claims))));
    }

    private static Map<String, Object> claims(Person person) {
        Map<String, Object> claims = new LinkedHashMap<>();
        claims.put("sub", person.subject);
        claims.put("name", person.name);
        claims.put("email", person.email);
        claims.put("email_verified", person.verified);
        return claims;
    }

    private String signed(String claims) {
        try {
            String text = coded("{\"alg\":\"RS256\",\"kid\":\"1\"}".getBytes(StandardCharsets.UTF_8)) + "."
                    + coded(claims.getBytes(StandardCharsets.UTF_8));
            Signature signature = Signature.getInstance("SHA256withRSA");
            signature.initSign(keys.getPrivate());
            signature.update(text.getBytes(StandardCharsets.US_ASCII));
            return text + "." + coded(signature.sign());
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private void keys(HttpExchange exchange) throws IOException {
        RSAPublicKey key = (RSAPublicKey) keys.getPublic();
        json(
                exchange,
                200,
                "{\"keys\":[{\"kty\":\"RSA\",\"kid\":\"1\",\"use\":\"sig\",\"alg\":\"RS256\",\"n\":\"%s\",\"e\":\"%s\"}]}"
                        .formatted(coded(unsigned(key.getModulus())), coded(unsigned(key.getPublicExponent()))));
    }

    private void about(HttpExchange exchange) throws IOException {
        String said = exchange.getRequestHeaders().getFirst("Authorization");
        Person person = said == null ? null : tokens.get(said.replace("Bearer ", ""));
        if (person == null) json(exchange, 401, "{\"error\":\"invalid_token\"}");
        else json(exchange, 200, object(claims(person)));
    }

    private static byte[] unsigned(BigInteger number) {
        byte[] bytes = number.toByteArray();
        return bytes[0] == 0 ? java.util.Arrays.copyOfRange(bytes, 1, bytes.length) : bytes;
    }

    private static String coded(byte[] bytes) {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    private static String object(Map<String, Object> claims) {
        return claims.entrySet().stream()
                .filter(claim -> claim.getValue() != null)
                .map(claim -> "\"%s\":%s"
                        .formatted(
                                claim.getKey(),
                                claim.getValue() instanceof String text ? "\"" + text + "\"" : claim.getValue()))
                .collect(Collectors.joining(",", "{", "}"));
    }

    private static Map<String, String> read(String query) {
        Map<String, String> read = new LinkedHashMap<>();
        for (String part : query.split("&")) {
            String[] pair = part.split("=", 2);
            read.put(pair[0], pair.length < 2 ? "" : URLDecoder.decode(pair[1], StandardCharsets.UTF_8));
        }
        return read;
    }

    private static void json(HttpExchange exchange, int status, String body) throws IOException {
        answer(exchange, status, "application/json", body);
    }

    private static void answer(HttpExchange exchange, int status, String type, String body) throws IOException {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().set("Content-Type", type);
        exchange.sendResponseHeaders(status, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }
}
