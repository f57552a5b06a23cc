using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Checking;

/// <summary>What has to be done outside the core before a finding can be mended.</summary>
public enum FileRemedy
{
    /// <summary>Read what the file holds now.</summary>
    Update,

    /// <summary>Look for the file elsewhere.</summary>
    Find,
}

/// <summary>A way to mend a finding.</summary>
/// <param name="Key">What it is asked for by, the same wherever its kind is found: "fitAgain".</param>
/// <param name="Words">What it does, as it stands on a button: "Fit again".</param>
/// <param name="Make">The edit on a publication as it is then; null where there is nothing left to do.</param>
/// <param name="File">What is to be done with the file of the finding's image first; the edit then comes from that.</param>
public sealed record Remedy(string Key, string Words, Func<Publication, Edit?> Make, FileRemedy? File = null)
{
    public static Remedy OfFile(FileRemedy file, string words) => new(file == FileRemedy.Update ? "update" : "find", words, _ => null, file);
}

/// <summary>What remedies are made from.</summary>
/// <param name="Publication">The publication as it is.</param>
/// <param name="Profile">What it was checked by.</param>
/// <param name="Typefaces">The fonts.</param>
public sealed record RemedyContext(Publication Publication, CheckProfile Profile, ITypefaces Typefaces);
