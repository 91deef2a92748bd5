using System.Security.Cryptography;
using System.Text;
using Dapper;
using Microsoft.Data.Sqlite;

namespace PatientPawl.Data;

/// <summary>Bytes as they are kept beside a log: a JPEG with nothing in it but the picture, or a current trace as CSV.</summary>
/// <param name="Sha256">What it is found by.</param>
/// <param name="Content">Its bytes.</param>
public sealed record Picture(string Sha256, byte[] Content)
{
    /// <summary>The most bytes that one has.</summary>
    public const int MostBytes = 2 * 1024 * 1024;

    /// <summary>A picture of these bytes.</summary>
    public static Picture Of(byte[] content) => new(Convert.ToHexStringLower(SHA256.HashData(content)), content);

    /// <summary>True when the bytes begin as a JPEG's do (ISO/IEC 10918-1: start of image, then a marker).</summary>
    public bool LooksLikeJpeg => Content is [0xFF, 0xD8, 0xFF, ..];

    /// <summary>The first line of a trace.</summary>
    public const string TraceHeader = "time_s,current_a";

    /// <summary>True when the bytes begin as what an event says that they are.</summary>
    public bool LooksLike(string mediaType) => mediaType == JobFiles.PhotoType ? LooksLikeJpeg : Content.AsSpan().StartsWith(Encoding.ASCII.GetBytes(TraceHeader + "\n"));
}

/// <summary>The photos and traces of all jobs, by their hash.</summary>
public sealed class Photos(Database database)
{
    /// <summary>A picture's bytes; null when it is not here.</summary>
    public byte[]? Find(string sha256) => database.Read(c => c.ExecuteScalar<byte[]?>("select content from photo where sha256 = @sha256", new { sha256 }));

    /// <summary>Keeps a picture, in the transaction that names it.</summary>
    internal static void Keep(Database database, SqliteTransaction t, Picture picture) =>
        database.Execute(t, "insert into photo(sha256, content) values(@sha, @content) on conflict do nothing", ("@sha", picture.Sha256), ("@content", picture.Content));
}
