package sarnik.app.outside;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface AllowedHostRepository extends JpaRepository<AllowedHost, String> {

    List<AllowedHost> findAllByOrderByHost();
}
