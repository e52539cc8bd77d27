package sarnik.app.work;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Questions that nobody waits for any more. */
@RestController
class QuestionApi {

    private final AnswerQueue queue;

    QuestionApi(AnswerQueue queue) {
        this.queue = queue;
    }

    /** A page, named by its header, has been left. */
    @DeleteMapping("/api/questions")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void gone(HttpServletRequest request) {
        queue.gone(AnswerQueue.Asker.of(request));
    }
}
