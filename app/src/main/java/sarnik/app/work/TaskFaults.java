package sarnik.app.work;

import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.task.ThreadPoolTaskSchedulerCustomizer;
import org.springframework.scheduling.concurrent.ThreadPoolTaskScheduler;
import org.springframework.scheduling.support.TaskUtils;
import org.springframework.stereotype.Component;
import org.springframework.util.ErrorHandler;

/**
 * What tasks that come again stumble over. While the database is away each of them does so every second: that is a line
 * then, since whole stacks would fill a disk within hours.
 */
@Component
class TaskFaults implements ThreadPoolTaskSchedulerCustomizer, ErrorHandler {

    private static final Logger LOG = LoggerFactory.getLogger(TaskFaults.class);

    @Override
    public void customize(ThreadPoolTaskScheduler scheduler) {
        scheduler.setErrorHandler(this);
    }

    @Override
    public void handleError(Throwable failed) {
        SQLException away = databaseAway(failed);
        if (away == null) TaskUtils.LOG_AND_SUPPRESS_ERROR_HANDLER.handleError(failed);
        else LOG.warn("What is done again and again waits for the database: {}", away.getMessage());
    }

    /**
     * What says that the database cannot be reached, has ended or has no room left: states 08, 57P and 53 of PostgreSQL
     * (documentation, appendix A), or no connection in time; null for any other fault, whose stack is needed.
     */
    static SQLException databaseAway(Throwable failed) {
        for (Throwable cause = failed; cause != null; cause = cause.getCause())
            if (cause instanceof SQLException of && isAway(of)) return of;
        return null;
    }

    private static boolean isAway(SQLException of) {
        String state = of.getSQLState();
        return of instanceof SQLTransientConnectionException
                || state != null && (state.startsWith("08") || state.startsWith("57P") || state.startsWith("53"));
    }
}
