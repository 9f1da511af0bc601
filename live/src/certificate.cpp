#include "certificate.hpp"

#include <openssl/evp.h>
#include <openssl/pem.h>
#include <openssl/x509v3.h>

#include <memory>
#include <stdexcept>

namespace ubbo::live {

namespace {

template <auto Free>
struct By {
  template <class T>
  void operator()(T* one) const {
    Free(one);
  }
};
using Key = std::unique_ptr<EVP_PKEY, By<EVP_PKEY_free>>;
using Signed = std::unique_ptr<X509, By<X509_free>>;
using Bio = std::unique_ptr<BIO, By<BIO_free_all>>;
using Extension = std::unique_ptr<X509_EXTENSION, By<X509_EXTENSION_free>>;

[[noreturn]] void fail() { throw std::runtime_error("a certificate could not be made"); }

std::string text_of(const Bio& bio) {
  char* data = nullptr;
  const long size = BIO_get_mem_data(bio.get(), &data);
  return {data, static_cast<std::size_t>(size)};
}

bool is_address(const std::string& name) {
  return name.find_first_not_of("0123456789.") == std::string::npos || name.find(':') != std::string::npos;
}

void extend(X509* certificate, int what, const std::string& value) {
  X509V3_CTX context;
  X509V3_set_ctx(&context, certificate, certificate, nullptr, nullptr, 0);
  const Extension made(X509V3_EXT_conf_nid(nullptr, &context, what, value.c_str()));
  if (made == nullptr || X509_add_ext(certificate, made.get(), -1) != 1) fail();
}

}  // namespace

Certificate make_certificate(const std::vector<std::string>& names) {
  const Key key(EVP_EC_gen("P-256"));
  const Signed made(X509_new());
  if (key == nullptr || made == nullptr) fail();
  constexpr long day = 24L * 60 * 60;
  constexpr int days = 30;
  X509_set_version(made.get(), X509_VERSION_3);
  ASN1_INTEGER_set(X509_get_serialNumber(made.get()), 1);
  X509_gmtime_adj(X509_getm_notBefore(made.get()), -day);
  X509_gmtime_adj(X509_getm_notAfter(made.get()), days * day);
  X509_set_pubkey(made.get(), key.get());
  X509_NAME* name = X509_get_subject_name(made.get());
  X509_NAME_add_entry_by_txt(name, "CN", MBSTRING_ASC, reinterpret_cast<const unsigned char*>("ubbo live"),
                             -1, -1, 0);
  X509_set_issuer_name(made.get(), name);
  std::string all;
  for (const std::string& one : names)
    all += (all.empty() ? "" : ",") + std::string(is_address(one) ? "IP:" : "DNS:") + one;
  extend(made.get(), NID_subject_alt_name, all);
  extend(made.get(), NID_ext_key_usage, "serverAuth");
  if (X509_sign(made.get(), key.get(), EVP_sha256()) == 0) fail();
  const Bio chain(BIO_new(BIO_s_mem()));
  const Bio secret(BIO_new(BIO_s_mem()));
  if (PEM_write_bio_X509(chain.get(), made.get()) != 1 ||
      PEM_write_bio_PrivateKey(secret.get(), key.get(), nullptr, nullptr, 0, nullptr, nullptr) != 1)
    fail();
  return {text_of(chain), text_of(secret)};
}

}  // namespace ubbo::live
