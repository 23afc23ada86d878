import { GalleryPage } from "@/ui/gallery/GalleryPage";

export const metadata = { title: "Symbols" };

export default function Page() {
  return <GalleryPage />;
}
