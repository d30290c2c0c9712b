package dev.oddbeacon.server.objects;

import dev.oddbeacon.server.Settings;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.ByteBuffer;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.zip.CRC32C;
import software.amazon.awssdk.auth.credentials.AwsBasicCredentials;
import software.amazon.awssdk.auth.credentials.AwsCredentialsProvider;
import software.amazon.awssdk.auth.credentials.DefaultCredentialsProvider;
import software.amazon.awssdk.auth.credentials.StaticCredentialsProvider;
import software.amazon.awssdk.core.checksums.RequestChecksumCalculation;
import software.amazon.awssdk.core.checksums.ResponseChecksumValidation;
import software.amazon.awssdk.core.exception.SdkException;
import software.amazon.awssdk.core.sync.RequestBody;
import software.amazon.awssdk.http.urlconnection.UrlConnectionHttpClient;
import software.amazon.awssdk.regions.Region;
import software.amazon.awssdk.services.s3.S3Client;
import software.amazon.awssdk.services.s3.S3ClientBuilder;
import software.amazon.awssdk.services.s3.model.ChecksumAlgorithm;
import software.amazon.awssdk.services.s3.model.CompletedPart;
import software.amazon.awssdk.services.s3.model.NoSuchKeyException;
import software.amazon.awssdk.services.s3.model.S3Exception;

/**
 * A bucket of a store that speaks the protocol S3. Large files go in parts, every part with a checksum, and nothing is
 * written over: the store is asked to refuse a name that it has.
 */
final class S3Store implements ObjectStore {
    private static final String SCHEME = "s3://";
    private static final int PART = 16 << 20;
    private static final int IS_THERE = 412; // Precondition Failed
    private static final Duration ANSWER = Duration.ofSeconds(30);

    private final S3Client client;
    private final String bucket;
    private final String prefix; // empty, or with a slash at its end
    private final int part;

    S3Store(Settings.Cluster cluster) {
        this(cluster, PART);
    }

    /** @param part length of the parts of large files, in bytes; the protocol wants 5 MiB at least */
    S3Store(Settings.Cluster cluster, int part) {
        String path = cluster.objects().substring(SCHEME.length());
        int slash = path.indexOf('/');
        this.bucket = slash < 0 ? path : path.substring(0, slash);
        String below = slash < 0 ? "" : path.substring(slash + 1);
        this.prefix = below.isEmpty() || below.endsWith("/") ? below : below + "/";
        this.part = part;
        this.client = client(cluster.s3());
    }

    /** Whether a place is a bucket. */
    static boolean isNamedBy(String place) {
        return place.startsWith(SCHEME);
    }

    private static S3Client client(Settings.Cluster.S3 settings) {
        S3ClientBuilder builder = S3Client.builder()
                .region(Region.of(settings.region()))
                // checksums are sent in headers, which every store understands; what is fetched is held against its own
                .requestChecksumCalculation(RequestChecksumCalculation.WHEN_REQUIRED)
                .responseChecksumValidation(ResponseChecksumValidation.WHEN_REQUIRED)
                .serviceConfiguration(service -> service.chunkedEncodingEnabled(false))
                .credentialsProvider(credentials(settings))
                .httpClientBuilder(
                        UrlConnectionHttpClient.builder().socketTimeout(ANSWER).connectionTimeout(ANSWER));
        if (!settings.endpoint().isEmpty()) {
            builder.endpointOverride(URI.create(settings.endpoint())).forcePathStyle(true);
        }
        return builder.build();
    }

    private static AwsCredentialsProvider credentials(Settings.Cluster.S3 settings) {
        return settings.key().isEmpty()
                ? DefaultCredentialsProvider.builder().build()
                : StaticCredentialsProvider.create(AwsBasicCredentials.create(settings.key(), settings.secret()));
    }

    @Override
    public String place() {
        return SCHEME + bucket + "/" + prefix;
    }

    private interface Call<T> {
        T run() throws IOException;
    }

    /** What the store, or the way to it, does wrong is an error of reading and writing. */
    private static <T> T calling(Call<T> call) throws IOException {
        try {
            return call.run();
        } catch (SdkException | UncheckedIOException e) { // connections that break are told in the second way
            throw new IOException(e.getMessage(), e);
        }
    }

    @Override
    public void put(Path file) throws IOException {
        String key = prefix + file.getFileName();
        calling(() -> {
            try {
                if (Files.size(file) <= part) {
                    ByteBuffer whole = ByteBuffer.wrap(Files.readAllBytes(file));
                    client.putObject(
                            request -> request.bucket(bucket)
                                    .key(key)
                                    .ifNoneMatch("*")
                                    .checksumCRC32C(checksum(whole)),
                            RequestBody.fromByteBuffer(whole));
                } else if (!isThere(key)) {
                    putInParts(file, key);
                }
            } catch (S3Exception e) {
                if (e.statusCode() != IS_THERE) {
                    throw e;
                }
            }
            return null;
        });
    }

    /** Asked before parts are sent: not every store asks when they are put together. */
    private boolean isThere(String key) {
        try {
            client.headObject(request -> request.bucket(bucket).key(key));
            return true;
        } catch (NoSuchKeyException e) {
            return false;
        }
    }

    private void putInParts(Path file, String key) throws IOException {
        String upload = client.createMultipartUpload(
                        request -> request.bucket(bucket).key(key).checksumAlgorithm(ChecksumAlgorithm.CRC32_C))
                .uploadId();
        try (SeekableByteChannel channel = Files.newByteChannel(file)) {
            List<CompletedPart> done = new ArrayList<>();
            ByteBuffer buffer = ByteBuffer.allocate(part);
            while (fill(channel, buffer)) {
                int number = done.size() + 1;
                String checksum = checksum(buffer);
                var answer = client.uploadPart(
                        request -> request.bucket(bucket)
                                .key(key)
                                .uploadId(upload)
                                .partNumber(number)
                                .checksumCRC32C(checksum),
                        RequestBody.fromByteBuffer(buffer));
                done.add(CompletedPart.builder()
                        .partNumber(number)
                        .eTag(answer.eTag())
                        .checksumCRC32C(checksum)
                        .build());
            }
            client.completeMultipartUpload(request -> request.bucket(bucket)
                    .key(key)
                    .uploadId(upload)
                    .ifNoneMatch("*")
                    .multipartUpload(parts -> parts.parts(done)));
        } catch (IOException | SdkException | UncheckedIOException e) {
            giveUp(key, upload);
            throw e;
        }
    }

    /** As the protocol writes it. */
    private static String checksum(ByteBuffer bytes) {
        CRC32C sum = new CRC32C();
        sum.update(bytes.duplicate());
        return Base64.getEncoder()
                .encodeToString(ByteBuffer.allocate(Integer.BYTES)
                        .putInt((int) sum.getValue())
                        .array());
    }

    private static boolean fill(SeekableByteChannel channel, ByteBuffer buffer) throws IOException {
        buffer.clear();
        while (buffer.hasRemaining() && channel.read(buffer) >= 0) {
            // until the part is full
        }
        buffer.flip();
        return buffer.hasRemaining();
    }

    /** Parts that nobody completes would be paid for. */
    private void giveUp(String key, String upload) {
        try {
            client.abortMultipartUpload(
                    request -> request.bucket(bucket).key(key).uploadId(upload));
        } catch (SdkException | UncheckedIOException e) {
            // the store forgets them by itself, if it is told to
        }
    }

    @Override
    public void fetch(String name, Path file) throws IOException {
        calling(() -> {
            try (InputStream object =
                    client.getObject(request -> request.bucket(bucket).key(prefix + name))) {
                Files.copy(object, file, StandardCopyOption.REPLACE_EXISTING);
            } catch (NoSuchKeyException e) {
                throw new NoSuchFileException(place() + name);
            }
            return null;
        });
    }

    @Override
    public List<Stored> list() throws IOException {
        return calling(() ->
                client.listObjectsV2Paginator(request -> request.bucket(bucket).prefix(prefix)).contents().stream()
                        .map(object -> new Stored(object.key().substring(prefix.length()), object.size()))
                        .toList());
    }

    @Override
    public void delete(String name) throws IOException {
        calling(() -> client.deleteObject(request -> request.bucket(bucket).key(prefix + name)));
    }
}
