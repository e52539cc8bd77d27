package sarnik.app.image;

import java.time.Instant;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface StoredImageRepository extends JpaRepository<StoredImage, String> {

    /**
     * Clears the pictures that no dashboard names, neither as it stands nor in its history: those that were uploaded
     * and then not put on a sheet, and those of dashboards that were removed.
     *
     * @param before only those kept before then; one that was just uploaded is about to be put on a sheet
     * @return how many
     */
    @Modifying
    @Query(nativeQuery = true, value = """
                    DELETE FROM images i WHERE i.created_at < :before
                    AND NOT EXISTS (SELECT 1 FROM dashboards d WHERE position(i.name in d.document::text) > 0)
                    AND NOT EXISTS (SELECT 1 FROM dashboard_edits e WHERE position(i.name in e.document::text) > 0)
                    """)
    int clearUnused(Instant before);
}
