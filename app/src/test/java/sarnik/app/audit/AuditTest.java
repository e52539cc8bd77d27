package sarnik.app.audit;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.app.people.PeopleService;
import sarnik.app.people.Role;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;

@ExtendWith(RunningSarnik.class)
@DisplayName("What was done")
class AuditTest {

    private static String told(RunningSarnik sarnik, String asked) throws Exception {
        return sarnik.client("marta").get("/acts.csv" + asked).body();
    }

    @Test
    void holdsSignInsWithoutPasswordsThatStoodInTheWrongLine(RunningSarnik sarnik) throws Exception {
        sarnik.bean(PeopleService.class).add("audited", "Audited", RunningSarnik.PASSWORD, Role.READER);
        SarnikClient client = new SarnikClient(sarnik.base());
        client.signIn("audited", "not-the-one-4");
        client.signIn("my-secret-passw0rd", "x");
        assertThat(client.signIn("audited", RunningSarnik.PASSWORD)).isTrue();
        String all = told(sarnik, "?who=AUDITED");
        assertThat(all.lines().skip(1).map(line -> line.split(",", 2)[1]))
                .containsExactly(
                        "\"audited\",SIGNED_IN,\"signed in\",\"127.0.0.1\"",
                        "\"audited\",KEPT_OUT,\"was kept out: sign-in and password do not fit\",\"127.0.0.1\"");
        assertThat(told(sarnik, "")).contains("\"somebody unknown\"").doesNotContain("my-secret-passw0rd");
    }

    @Test
    void holdsRightsRemovalsAndWhatWasTakenAlongByName(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = Samples.dashboard(ana, "=Audited, \"quoted\"");
        ana.publish(dashboard);
        assertThat(ana.send("DELETE", "/api/dashboards/9876543", "application/json", "")
                        .statusCode())
                .isEqualTo(404);
        ana.send("DELETE", "/api/dashboards/" + dashboard, "application/json", "");
        String told = told(sarnik, "?who=ana&words=audited");
        assertThat(told)
                .contains(
                        "PUBLISHED,\"published an edition of the dashboard “=Audited, \"\"quoted\"\"”\"",
                        "RIGHTS,\"changed who may do what with the dashboard “=Audited, \"\"quoted\"\"”\"",
                        "REMOVED,\"took the dashboard “=Audited, \"\"quoted\"\"” away\"");
        assertThat(told(sarnik, "?words=9876543"))
                .as("what was refused was not done")
                .hasLineCount(1);
        assertThat(told(sarnik, "?who=ana&words=audited&kind=REMOVED&kind=NONE"))
                .hasLineCount(2);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "?from=2026-02-31",
                "?from=yesterday&to=0000-00-00",
                "?kind=NOTHING",
                "?from=9999-12-31",
                "?to=0001-01-01&from=9000-01-01",
                "?who=%27%20or%201%3D1--&words=%25"
            })
    void isAskedForInAnyWords(String asked, RunningSarnik sarnik) throws Exception {
        assertThat(sarnik.client("marta").get("/acts" + asked).statusCode()).isEqualTo(200);
        assertThat(sarnik.client("marta").get("/acts.csv" + asked).statusCode()).isEqualTo(200);
    }

    @Test
    void isReadByStewardsOnly(RunningSarnik sarnik) throws Exception {
        String page = sarnik.client("marta").get("/acts?kind=SIGNED_IN").body();
        assertThat(page).contains("What was done", "signed in").doesNotContain("took the dashboard");
        for (String other : new String[] {"ana", "rui"})
            assertThat(sarnik.client(other).get("/acts").statusCode()).as(other).isEqualTo(403);
    }

    @Test
    void ofLongWordsKeepsTheBeginning(RunningSarnik sarnik) throws Exception {
        sarnik.bean(ActLog.class).keep("longwinded", Act.Kind.MADE, "x".repeat(4000), "a".repeat(300));
        sarnik.bean(ActLog.class).keep("longwinded", Act.Kind.MADE, "with\u0000nul", null);
        assertThat(told(sarnik, "?who=longwinded").lines().skip(1))
                .hasSize(2)
                .anySatisfy(line -> assertThat(line).contains("xxx…"));
    }
}
