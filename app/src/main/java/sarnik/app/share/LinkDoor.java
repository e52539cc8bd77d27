package sarnik.app.share;

import static sarnik.language.Language.phrase;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import sarnik.app.dashboard.Reading;
import sarnik.app.dashboard.ReadingDoor;
import sarnik.app.dashboard.Readings;
import sarnik.app.people.Groups;
import sarnik.app.people.SignedIn;
import sarnik.app.people.Viewer;
import sarnik.app.rights.Rights;
import sarnik.app.web.RefusedException;

/** Opens editions to whoever bears a link. */
@Component
class LinkDoor implements ReadingDoor {

    private final Links links;
    private final Readings readings;
    private final Groups groups;
    private final Rights rights;

    LinkDoor(Links links, Readings readings, Groups groups, Rights rights) {
        this.links = links;
        this.readings = readings;
        this.groups = groups;
        this.rights = rights;
    }

    @Override
    public String variable() {
        return "bearer";
    }

    @Override
    public Reading open(String value, HttpServletRequest request) {
        Links.Opened link = links.open(Links.Borne.of(value));
        if (link.locked())
            throw new RefusedException(
                    HttpStatus.UNAUTHORIZED, phrase("This link asks for a password. Open its page again and type it."));
        return open(link, SignedIn.of(request));
    }

    /**
     * @param person who is signed in; null for nobody
     * @throws RefusedException with 401 where it opens to those only who sign in, with 403 where others are named
     */
    Reading open(Links.Opened link, SignedIn person) {
        if (link.opensTo() != ShareLink.OpensTo.ANYONE && person == null)
            throw new RefusedException(HttpStatus.UNAUTHORIZED, phrase("This link opens to people who sign in."));
        if (link.opensTo() == ShareLink.OpensTo.NAMED && !rights.isOne(person, link.named()))
            throw new RefusedException(
                    HttpStatus.FORBIDDEN,
                    phrase("This link was made for others. Ask whoever gave it to you to name you as well."));
        // One that opens to anyone shows the same to everyone, whoever is signed in.
        Viewer viewer = link.opensTo() == ShareLink.OpensTo.ANYONE ? Viewer.STRANGER : groups.viewer(person);
        return readings.published(link.dashboard(), viewer, link.takes(), link.bound());
    }
}
