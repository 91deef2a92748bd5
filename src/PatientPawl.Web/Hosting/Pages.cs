using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Net.Http.Headers;

namespace PatientPawl.Web.Hosting;

/// <summary>The built front end: the page, and its scripts and styles with a Brotli copy beside each.</summary>
internal static class Pages
{
    private const string Packed = ".br";

    public static void MapPages(this WebApplication app)
    {
        var files = app.Environment.WebRootFileProvider;
        var types = new FileExtensionContentTypeProvider();
        var packed = new FileExtensionContentTypeProvider();
        packed.Mappings[Packed] = "application/octet-stream";
        app.Use((context, next) =>
        {
            var path = context.Request.Path;
            if (path.StartsWithSegments("/assets", StringComparison.Ordinal) && TakesBrotli(context.Request) && files.GetFileInfo(path.Value + Packed).Exists)
                context.Request.Path = path.Value + Packed;
            return next(context);
        });
        app.UseStaticFiles(new StaticFileOptions
        {
            ContentTypeProvider = packed,
            OnPrepareResponse = c =>
            {
                var headers = c.Context.Response.Headers;
                // Built assets carry their hash in the name; the page itself, and what keeps it on a device, must always be asked for again.
                headers.CacheControl = c.File.Name is "index.html" or "sw.js" ? "no-cache" : "public,max-age=31536000,immutable";
                headers.Append(HeaderNames.Vary, HeaderNames.AcceptEncoding);
                if (!c.File.Name.EndsWith(Packed, StringComparison.Ordinal)) return;
                headers.ContentEncoding = "br";
                headers.ContentType = types.TryGetContentType(c.File.Name[..^Packed.Length], out var type) ? type : "application/octet-stream";
            },
        });
        app.MapFallbackToFile("index.html", new StaticFileOptions { OnPrepareResponse = c => c.Context.Response.Headers.CacheControl = "no-cache" }).ExcludeFromDescription();
    }

    private static bool TakesBrotli(HttpRequest request) =>
        request.GetTypedHeaders().AcceptEncoding.Any(e => e.Value == "br" && e.Quality is not 0);
}
