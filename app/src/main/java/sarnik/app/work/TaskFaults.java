package sarnik.app.work;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.task.ThreadPoolTaskSchedulerCustomizer;
import org.springframework.scheduling.concurrent.ThreadPoolTaskScheduler;
import org.springframework.scheduling.support.TaskUtils;
import org.springframework.stereotype.Component;
import org.springframework.util.ErrorHandler;
import sarnik.app.web.DatabaseAway;

/**
 * What tasks that come again stumble over. While the database is away each of them does so every second, which is a line
 * then.
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
        if (DatabaseAway.cause(failed) == null) TaskUtils.LOG_AND_SUPPRESS_ERROR_HANDLER.handleError(failed);
        else DatabaseAway.say(LOG, "What is done again and again", failed);
    }
}
