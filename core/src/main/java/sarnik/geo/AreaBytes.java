package sarnik.geo;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKBReader;
import org.locationtech.jts.io.WKBWriter;

/** Areas as bytes to be stored: code, name, parent and shape (well-known binary) of each, compressed. */
public final class AreaBytes {

    private AreaBytes() {}

    public static byte[] write(List<Area> areas) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (OutputStream out = new GZIPOutputStream(bytes)) {
            out.write(plain(areas));
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return bytes.toByteArray();
    }

    /** The same, not compressed. */
    public static byte[] plain(List<Area> areas) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (DataOutputStream out = new DataOutputStream(bytes)) {
            out.writeInt(areas.size());
            WKBWriter shapes = new WKBWriter();
            for (Area area : areas) {
                out.writeUTF(area.code());
                out.writeUTF(area.name());
                out.writeUTF(area.parent());
                byte[] shape = shapes.write(area.shape());
                out.writeInt(shape.length);
                out.write(shape);
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return bytes.toByteArray();
    }

    /**
     * @throws UncheckedIOException when the bytes are not what {@link #write} gives
     */
    public static List<Area> read(byte[] bytes) {
        try (InputStream in = new GZIPInputStream(new ByteArrayInputStream(bytes))) {
            return ofPlain(in.readAllBytes());
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    /**
     * The areas of bytes that are not compressed.
     *
     * @throws UncheckedIOException when the bytes are not what {@link #plain} gives
     */
    public static List<Area> ofPlain(byte[] bytes) {
        try (DataInputStream in = new DataInputStream(new ByteArrayInputStream(bytes))) {
            int count = in.readInt();
            List<Area> areas = new ArrayList<>();
            WKBReader shapes = new WKBReader();
            for (int i = 0; i < count; i++) {
                String code = in.readUTF();
                String name = in.readUTF();
                String parent = in.readUTF();
                areas.add(new Area(code, name, parent, shapes.read(bytes(in))));
            }
            return areas;
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        } catch (ParseException broken) {
            throw new UncheckedIOException(new IOException(broken));
        }
    }

    private static byte[] bytes(DataInputStream in) throws IOException {
        byte[] bytes = new byte[in.readInt()];
        in.readFully(bytes);
        return bytes;
    }
}
