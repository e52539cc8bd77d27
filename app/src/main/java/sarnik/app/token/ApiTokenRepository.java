package sarnik.app.token;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface ApiTokenRepository extends JpaRepository<ApiToken, Long> {

    Optional<ApiToken> findByHash(String hash);

    List<ApiToken> findByPersonIdOrderByMadeAtDesc(long person);
}
