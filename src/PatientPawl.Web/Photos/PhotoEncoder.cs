using PatientPawl.Core;
using PatientPawl.Data;
using SkiaSharp;

namespace PatientPawl.Web.Photos;

/// <summary>Makes of what a camera sent a picture that is kept: upright, at most <see cref="LongSidePx"/> long, and nothing in it but the picture.</summary>
internal static class PhotoEncoder
{
    /// <summary>The long side of a picture that is kept, pixels: a crack in a lining still shows.</summary>
    public const int LongSidePx = 2048;

    // What is decoded at once: 40 million pixels take 160 MB. A camera's JPEG of more is decoded at a part of its size.
    private const long MostPixels = 40_000_000;

    /// <summary>The picture, and how large it is.</summary>
    /// <exception cref="InputException">No picture that can be read, or one of too many pixels.</exception>
    public static (Picture Picture, int Width, int Height) Encode(byte[] sent)
    {
        using var data = SKData.CreateCopy(sent);
        using var codec = SKCodec.Create(data) ?? throw Wrong("as sent", "a JPEG, PNG or WebP picture", "This is no picture that can be read: send a JPEG, PNG or WebP.");
        using var whole = Decoded(codec);
        using var small = Smaller(whole);
        using var upright = Upright(small, codec.EncodedOrigin);
        // A picture of nothing but noise takes more room than it is worth: it is kept coarser.
        for (var quality = 85; ; quality -= 15)
        {
            using var jpeg = upright.Encode(SKEncodedImageFormat.Jpeg, quality);
            if (jpeg.Size <= Picture.MostBytes || quality < 20) return (Picture.Of(jpeg.ToArray()), upright.Width, upright.Height);
        }
    }

    // A JPEG can be decoded in eighths of its size, and is in the eighth that is next above what is wanted: a large one takes no more memory than that.
    private static SKBitmap Decoded(SKCodec codec)
    {
        var wanted = Math.Min(1, LongSidePx / (float)Math.Max(codec.Info.Width, codec.Info.Height));
        var size = codec.GetScaledDimensions(MathF.Ceiling(wanted * 8) / 8);
        if ((long)size.Width * size.Height > MostPixels)
            throw Wrong($"{codec.Info.Width} x {codec.Info.Height}", "at most 40 million pixels, or a JPEG", $"A picture of {codec.Info.Width} x {codec.Info.Height} pixels is too large: send it as a JPEG, or smaller.");
        var bitmap = new SKBitmap(new SKImageInfo(size.Width, size.Height, SKColorType.Rgba8888, SKAlphaType.Premul));
        if (codec.GetPixels(bitmap.Info, bitmap.GetPixels()) is SKCodecResult.Success or SKCodecResult.IncompleteInput) return bitmap;
        bitmap.Dispose();
        throw Wrong("as sent", "a whole picture", "This picture is damaged: take it again.");
    }

    private static SKBitmap Smaller(SKBitmap whole)
    {
        var scale = Math.Min(1, LongSidePx / (float)Math.Max(whole.Width, whole.Height));
        var small = new SKBitmap(new SKImageInfo(Math.Max(1, (int)MathF.Round(whole.Width * scale)), Math.Max(1, (int)MathF.Round(whole.Height * scale)), SKColorType.Rgba8888, SKAlphaType.Opaque));
        using var canvas = new SKCanvas(small);
        using var image = SKImage.FromBitmap(whole);
        canvas.Clear(SKColors.White);
        canvas.DrawImage(image, new SKRect(0, 0, small.Width, small.Height), new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        return small;
    }

    // Exif 2.32, tag 0x0112: how the camera was held. It goes with the other marks, so the picture itself is turned.
    private static SKBitmap Upright(SKBitmap bitmap, SKEncodedOrigin origin)
    {
        var lying = origin is SKEncodedOrigin.LeftTop or SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom or SKEncodedOrigin.LeftBottom;
        var (w, h) = (bitmap.Width, bitmap.Height);
        var turned = new SKBitmap(new SKImageInfo(lying ? h : w, lying ? w : h, bitmap.ColorType, bitmap.AlphaType));
        using var canvas = new SKCanvas(turned);
        canvas.SetMatrix(origin switch
        {
            SKEncodedOrigin.TopRight => new SKMatrix(-1, 0, w, 0, 1, 0, 0, 0, 1),
            SKEncodedOrigin.BottomRight => new SKMatrix(-1, 0, w, 0, -1, h, 0, 0, 1),
            SKEncodedOrigin.BottomLeft => new SKMatrix(1, 0, 0, 0, -1, h, 0, 0, 1),
            SKEncodedOrigin.LeftTop => new SKMatrix(0, 1, 0, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightTop => new SKMatrix(0, -1, h, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightBottom => new SKMatrix(0, -1, h, -1, 0, w, 0, 0, 1),
            SKEncodedOrigin.LeftBottom => new SKMatrix(0, 1, 0, -1, 0, w, 0, 0, 1),
            _ => SKMatrix.Identity,
        });
        canvas.DrawBitmap(bitmap, 0, 0, SKSamplingOptions.Default);
        return turned;
    }

    private static InputException Wrong(string value, string allowed, string says) => new(new InputError("content", value, allowed, says));
}
