package sarnik.app.work;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.read.ListAppender;
import java.sql.SQLTransientConnectionException;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.scheduling.concurrent.ThreadPoolTaskScheduler;

@DisplayName("What tasks that come again stumble over")
class TaskFaultsTest {

    /** What the log says of a task that stumbles. */
    private static ILoggingEvent said(RuntimeException fault) throws Exception {
        Logger root = (Logger) LoggerFactory.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
        ListAppender<ILoggingEvent> log = new ListAppender<>();
        log.start();
        root.addAppender(log);
        ThreadPoolTaskScheduler scheduler = new ThreadPoolTaskScheduler();
        scheduler.setThreadNamePrefix("stumbling-");
        new TaskFaults().customize(scheduler);
        scheduler.initialize();
        try {
            scheduler
                    .schedule(
                            () -> {
                                throw fault;
                            },
                            Instant.now())
                    .get();
        } finally {
            scheduler.shutdown();
            root.detachAppender(log);
        }
        List<ILoggingEvent> own = List.copyOf(log.list).stream()
                .filter(event -> event.getThreadName().startsWith("stumbling-"))
                .toList();
        assertThat(own).hasSize(1);
        return own.get(0);
    }

    @Test
    void saysInALineThatTheDatabaseIsAway() throws Exception {
        ILoggingEvent said = said(new DataAccessResourceFailureException(
                "no connection", new SQLTransientConnectionException("refused at 5432")));
        assertThat(said.getLevel()).isEqualTo(Level.ERROR);
        assertThat(said.getFormattedMessage()).endsWith("the database does not do what it should: refused at 5432");
        assertThat(said.getThrowableProxy()).isNull();
    }

    @Test
    void saysOtherFaultsInFull() throws Exception {
        ILoggingEvent said = said(new IllegalStateException("a fault of its own"));
        assertThat(said.getLevel()).isEqualTo(Level.ERROR);
        assertThat(said.getThrowableProxy().getMessage()).isEqualTo("a fault of its own");
    }
}
