package sarnik.app.image;

import org.springframework.data.jpa.repository.JpaRepository;

interface StoredImageRepository extends JpaRepository<StoredImage, String> {}
