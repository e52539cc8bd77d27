package sarnik.app.image;

import java.io.IOException;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;

/** Takes pictures for sheets. */
@RestController
class ImageApi {

    private static final long LARGEST = 12L << 20;

    private final Images images;

    ImageApi(Images images) {
        this.images = images;
    }

    /**
     * @param name by which a sheet shows it
     * @param width pixels
     * @param height pixels
     */
    record Kept(String name, int width, int height) {}

    @PostMapping("/api/images")
    @ResponseStatus(HttpStatus.CREATED)
    Kept keep(@RequestPart("file") MultipartFile file, @AuthenticationPrincipal SignedIn person) throws IOException {
        if (file.getSize() > LARGEST)
            throw new RefusedException("The file has %,d MB; a picture has at most %,d. Make it smaller."
                    .formatted(file.getSize() >> 20, LARGEST >> 20));
        Reencoded image = Reencoded.of(file.getBytes());
        images.keep(image, person.id());
        return new Kept(image.name(), image.width(), image.height());
    }
}
