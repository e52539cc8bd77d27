package sarnik.app.people;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.HttpStatusEntryPoint;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.springframework.security.web.servlet.util.matcher.PathPatternRequestMatcher;
import org.springframework.http.HttpStatus;

/** Who may do what. Readers reach only what is listed for them; everything else is for authors. */
@Configuration
class SecuritySetup {

    private static final String CONTENT_POLICY = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; "
            + "font-src 'self'; connect-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'self'; "
            + "frame-ancestors 'none'; object-src 'none'";

    @Bean
    PasswordEncoder passwordEncoder() {
        return PasswordEncoderFactories.createDelegatingPasswordEncoder();
    }

    @Bean
    SecurityFilterChain rights(HttpSecurity http) throws Exception {
        http.authorizeHttpRequests(request -> request
                .requestMatchers("/sign-in", "/css/**", "/js/**", "/vendor/**", "/fonts/**", "/ground/**", "/favicon.svg", "/error").permitAll()
                .requestMatchers("/people/**", "/hosts/**", "/grounds/**").hasRole("STEWARD")
                .requestMatchers(HttpMethod.GET, "/", "/dashboards/*", "/api/dashboards/*", "/api/boundary-sets/*/shapes/*", "/api/grounds/**", "/api/places").authenticated()
                .requestMatchers(HttpMethod.POST, "/api/dashboards/*/frames", "/api/dashboards/*/places/*", "/api/dashboards/*/pictures", "/api/dashboards/*/rows", "/sign-out").authenticated()
                .anyRequest().hasAnyRole("ANALYST", "STEWARD"));
        http.formLogin(form -> form.loginPage("/sign-in").loginProcessingUrl("/sign-in").defaultSuccessUrl("/", false).failureUrl("/sign-in?wrong"));
        http.logout(out -> out.logoutUrl("/sign-out").logoutSuccessUrl("/sign-in?out"));
        // A script that asks without a session gets an answer it can tell, not a page.
        http.exceptionHandling(refusal -> refusal.defaultAuthenticationEntryPointFor(
                new HttpStatusEntryPoint(HttpStatus.UNAUTHORIZED), PathPatternRequestMatcher.withDefaults().matcher("/api/**")));
        http.headers(headers -> headers
                .contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_POLICY))
                .referrerPolicy(referrer -> referrer.policy(ReferrerPolicy.SAME_ORIGIN)));
        return http.build();
    }
}
