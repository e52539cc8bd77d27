package sarnik.app.ground;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface PictureSourceRepository extends JpaRepository<PictureSource, String> {

    List<PictureSource> findAllByOrderByName();
}
