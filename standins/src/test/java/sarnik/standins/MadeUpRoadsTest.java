package sarnik.standins;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.protobuf.CodedInputStream;
import com.google.protobuf.WireFormat;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MadeUpRoadsTest {

    /** How many roads a tile holds. */
    private static int roads(byte[] tile) throws IOException {
        CodedInputStream in = CodedInputStream.newInstance(tile);
        int roads = 0;
        for (int tag = in.readTag(); tag != 0; tag = in.readTag()) {
            assertThat(WireFormat.getTagFieldNumber(tag)).as("layers only").isEqualTo(3);
            CodedInputStream layer = CodedInputStream.newInstance(in.readByteArray());
            for (int part = layer.readTag(); part != 0; part = layer.readTag()) {
                if (WireFormat.getTagFieldNumber(part) == 2) roads++;
                layer.skipField(part);
            }
        }
        return roads;
    }

    @Test
    void aTileIsTheSameEachTime() throws IOException {
        assertThat(MadeUpRoads.tile(6, 31, 24)).isEqualTo(MadeUpRoads.tile(6, 31, 24));
    }

    @Test
    void townsHaveStreetsOnceOneIsNear() throws IOException {
        // The tiles that hold Madrid, 3.70° west and 40.42° north.
        assertThat(roads(MadeUpRoads.tile(5, 15, 12))).isBetween(10, 200);
        assertThat(roads(MadeUpRoads.tile(13, 4011, 3088))).isGreaterThan(10);
        assertThat(MadeUpRoads.tile(5, 3, 12))
                .as("none on the other side of the world")
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"/roads/5/15/12.mvt, 200", "/roads/5/3/12.mvt, 200", "/roads/5/32/0.mvt, 404", "/roads/5/15/12.png, 404"
    })
    void onlyTilesThatThereAreAreServed(String path, int status) throws Exception {
        RemoteTable server = RemoteTable.start(0, () -> 1);
        try {
            HttpResponse<byte[]> answer = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + server.port() + path))
                                    .build(),
                            HttpResponse.BodyHandlers.ofByteArray());
            assertThat(answer.statusCode()).isEqualTo(status);
        } finally {
            server.close();
        }
    }
}
