package sarnik.app.outside;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.time.Clock;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;

/** Keeps which hosts of this machine or a private network may be asked. */
@Service
public class AllowedHosts {

    private final AllowedHostRepository hosts;

    AllowedHosts(AllowedHostRepository hosts) {
        this.hosts = hosts;
    }

    /** Whether a steward has allowed this host with this port. */
    @Transactional(readOnly = true)
    public boolean allows(String host, int port) {
        return hosts.existsById(host.toLowerCase(Locale.ROOT) + ":" + port);
    }

    /**
     * Where a host lies, if it may be asked.
     *
     * @throws RefusedException when there is none of this name, and when it is this machine or lies in a private
     *     network and no steward has allowed it with this port
     */
    @Transactional(readOnly = true)
    public InetAddress[] addresses(String host, int port) {
        InetAddress[] addresses;
        try {
            addresses = InetAddress.getAllByName(host);
        } catch (UnknownHostException unknown) {
            throw new RefusedException("There is no host called “" + host + "”.");
        }
        if (Arrays.stream(addresses).anyMatch(InsideAddresses::isInside) && !allows(host, port))
            throw new RefusedException(
                    ("“%s” is this machine or lies in a private network, which is not asked unless a steward "
                                    + "allows “%s”.")
                            .formatted(host, host + ":" + port));
        return addresses;
    }

    @Transactional(readOnly = true)
    public List<AllowedHost> all() {
        return hosts.findAllByOrderByHost();
    }

    /**
     * @param host name and port, such as {@code 127.0.0.1:8191}
     */
    @Transactional
    public void allow(String host, SignedIn person) {
        String clean = host == null ? "" : host.strip().toLowerCase(Locale.ROOT);
        if (!clean.matches("[a-z0-9._\\[\\]:-]{1,200}:\\d{1,5}"))
            throw new RefusedException("Write the host with its port, such as 127.0.0.1:8191.");
        hosts.save(new AllowedHost(clean, person.id(), Clock.systemUTC().instant()));
    }

    @Transactional
    public void forbid(String host) {
        hosts.deleteById(host);
    }
}
